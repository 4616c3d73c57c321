package leveltally.server.company;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Settings;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** The day that counts: in the demo one that goes on when somebody says so, the day in the company's zone otherwise. */
@Component
public class BusinessDay {
    private final JdbcClient jdbc;
    private final Settings settings;
    private final AuditTrail audit;

    BusinessDay(JdbcClient jdbc, Settings settings, AuditTrail audit) {
        this.audit = audit;
        this.jdbc = jdbc;
        this.settings = settings;
    }

    public LocalDate today() {
        return settings.demo() ? dayOfTheDemo() : LocalDate.now(zone());
    }

    private LocalDate dayOfTheDemo() {
        return jdbc.sql("SELECT day FROM practice_day")
                .query(LocalDate.class)
                .optional()
                .orElse(settings.demoDate());
    }

    /** A day passes; in the demo only. */
    @Transactional
    public void goOn(Actor by, LocalDate to) {
        if (!settings.demo()) {
            throw Refusal.conflict("no-practice", "Days pass by themselves; only the demo waits for somebody.");
        }
        if (!to.isAfter(today())) {
            throw Refusal.conflict("day-passed", "Somebody let this day pass already. Look again.");
        }
        jdbc.sql("REPLACE INTO practice_day (only_one, day) VALUES (1, ?)")
                .param(to)
                .update();
        audit.record(by, "let a day pass", "company", Map.of("day", to.toString()));
    }

    /** The company's zone, or the one the machine is configured for. */
    public ZoneId zone() {
        return jdbc.sql("SELECT zone FROM company WHERE zone IS NOT NULL")
                .query(String.class)
                .optional()
                .map(ZoneId::of)
                .orElse(settings.zone());
    }
}
