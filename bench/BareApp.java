package bench;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;

/** A Spring Boot application with the same starters and nothing of its own, to compare the start with. */
@SpringBootApplication
public class BareApp {
    public static void main(String[] args) {
        SpringApplication.run(BareApp.class, args);
        System.out.println("KNOT ready");
    }
}
