package app.knottag.server;

import java.time.Clock;
import java.time.Instant;
import org.apache.ibatis.annotations.Mapper;
import org.mybatis.spring.annotation.MapperScan;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Primary;

/** Starts Knot Tag. */
@SpringBootApplication
@MapperScan(basePackageClasses = App.class, annotationClass = Mapper.class)
public class App {

    public static void main(String[] args) {
        SpringApplication.run(App.class, args);
    }

    /** The time of the machine, by which sessions end. */
    @Bean
    Clock machineClock() {
        return Clock.systemUTC();
    }

    /** The time of the job; in a demo on quick time several minutes of it go by in one. */
    @Bean
    @Primary
    Clock clock(@Value("${knot.demo.pace:1}") int pace, @Value("${knot.demo.pace-from:0}") long from) {
        return pace == 1 ? machineClock() : new QuickClock(machineClock(), Instant.ofEpochSecond(from), pace);
    }
}
