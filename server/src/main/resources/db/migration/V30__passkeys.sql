-- Passkeys (WebAuthn) beside the password. Names and columns are those that Spring Security's own store reads and writes.
create table user_entities (
    id text primary key,
    name text not null unique,
    display_name text
);
create table user_credentials (
    credential_id text primary key,
    user_entity_user_id text not null references user_entities,
    public_key bytea not null,
    signature_count bigint,
    uv_initialized boolean,
    backup_eligible boolean not null,
    authenticator_transports text,
    public_key_credential_type text,
    backup_state boolean not null,
    attestation_object bytea,
    attestation_client_data_json bytea,
    created timestamptz,
    last_used timestamptz,
    label text not null constraint user_credentials_label check (length(label) between 1 and 60)
);
create index user_credentials_of_user on user_credentials (user_entity_user_id);
grant select, insert, update on user_entities to knot_app;
grant select, insert, update, delete on user_credentials to knot_app;
