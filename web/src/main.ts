import './app.css';
import { mount } from 'svelte';
import App from './App.svelte';
import { install } from './frame/installed.svelte';

const chosen = localStorage.getItem('knot-theme');
if (chosen) document.documentElement.dataset.theme = chosen;

const target = document.getElementById('app');
if (target) mount(App, { target });
if (import.meta.env.PROD) install();
