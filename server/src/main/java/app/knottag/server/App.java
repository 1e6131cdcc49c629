package app.knottag.server;

import java.time.Clock;
import org.apache.ibatis.annotations.Mapper;
import org.mybatis.spring.annotation.MapperScan;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;

/** Starts Knot Tag. */
@SpringBootApplication
@MapperScan(basePackageClasses = App.class, annotationClass = Mapper.class)
public class App {

    public static void main(String[] args) {
        SpringApplication.run(App.class, args);
    }

    /** The time of the machine, by which sessions end; outside a demo that of the job as well. */
    @Bean
    Clock machineClock() {
        return Clock.systemUTC();
    }
}
