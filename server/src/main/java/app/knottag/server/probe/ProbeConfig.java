package app.knottag.server.probe;

import app.knottag.core.gear.GearProbe;
import app.knottag.core.reach.Probes;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Chooses what is probed: the real network, or the stand-ins when this is the demo. */
@Configuration
class ProbeConfig {

    @Bean
    Probes probes(StandIns standIns) {
        return network(standIns);
    }

    @Bean
    GearProbe gearProbe(StandIns standIns) {
        return new GearTalk(network(standIns));
    }

    private static NetworkProbes network(StandIns standIns) {
        return standIns.active() ? new StandInProbes(standIns) : new NetworkProbes();
    }
}
