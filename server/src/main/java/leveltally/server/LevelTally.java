package leveltally.server;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.scheduling.annotation.EnableScheduling;

/** The application. */
@SpringBootApplication
@ConfigurationPropertiesScan
@EnableScheduling
public class LevelTally {
    static {
        // instants are kept in UTC, whoever writes them: Hibernate or plain JDBC
        java.util.TimeZone.setDefault(java.util.TimeZone.getTimeZone("UTC"));
    }

    public static void main(String[] args) {
        SpringApplication.run(LevelTally.class, args);
    }
}
