package app.knottag.server.demo;

import java.time.Clock;
import java.time.Instant;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.autoconfigure.condition.ConditionalOnExpression;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Primary;

/** In the demo the time of the job is not that of the machine, by which sessions end. */
@Configuration
@ConditionalOnExpression("!'${knot.demo.control:}'.isEmpty()")
class DemoTime {

    @Bean
    @Primary
    DemoClock clock(
            Clock machineClock, @Value("${knot.demo.pace:1}") int pace, @Value("${knot.demo.pace-from:0}") long from) {
        return new DemoClock(machineClock, Instant.ofEpochSecond(from), pace);
    }
}
