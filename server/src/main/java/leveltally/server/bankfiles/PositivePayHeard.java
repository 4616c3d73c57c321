package leveltally.server.bankfiles;

import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.server.bankfiles.BankAnswers.RefusedItem;
import leveltally.server.checks.BankEvents;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Events of a positive pay file that the bank refused wait again. */
@Component
class PositivePayHeard implements FileHeard {
    private final JdbcClient jdbc;
    private final BankEvents told;

    PositivePayHeard(JdbcClient jdbc, BankEvents told) {
        this.jdbc = jdbc;
        this.told = told;
    }

    @Override
    public FilePurpose purpose() {
        return FilePurpose.POSITIVE_PAY;
    }

    @Override
    @Transactional
    public void refused(long file) {
        told.waitAgain(file);
    }

    @Override
    @Transactional
    public void refused(long file, List<RefusedItem> items) {
        items.forEach(one -> refuse(file, one));
    }

    private void refuse(long file, RefusedItem one) {
        List<Long> events = jdbc.sql("""
                        SELECT x.event_id FROM bank_file_item x JOIN bank_event e ON e.id = x.event_id
                        JOIN check_number n ON n.id = e.check_number_id JOIN number_series s ON s.id = n.series_id
                        WHERE x.file_id = :file AND x.refused_why IS NULL
                          AND (CONCAT(s.prefix, n.number) = :number OR CAST(n.number AS CHAR) = :number)
                        """)
                .param("file", file)
                .param("number", one.number())
                .query(Long.class)
                .list();
        if (events.isEmpty()) {
            throw Refusal.invalidField(
                    "not-in-file",
                    "refused",
                    "This file tells of no check " + one.number() + ", or it stands here twice.");
        }
        jdbc.sql("UPDATE bank_file_item SET refused_why = :why WHERE file_id = :file AND event_id IN (:events)")
                .param("why", one.kept())
                .param("file", file)
                .param("events", events)
                .update();
        // what a file told anew stands in the file that told it first
        told.waitAgain(file, events);
    }
}
