package leveltally.server.bankfiles;

import java.sql.Timestamp;
import java.util.Map;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Files that people carry to the bank themselves: who took one, and when. */
@Service
public class FilesByHand {
    private final BankFiles files;
    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final AuditTrail audit;

    FilesByHand(BankFiles files, JdbcClient jdbc, WorkIds ids, AuditTrail audit) {
        this.files = files;
        this.jdbc = jdbc;
        this.ids = ids;
        this.audit = audit;
    }

    /** Somebody takes the file to hand it over; it can be taken again, and is the same. */
    @Transactional
    public void handed(Actor by, long file) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        BankFiles.Made made = files.made(file);
        jdbc.sql("INSERT INTO bank_file_handing (id, file_id, at, person_id) VALUES (?, ?, ?, ?)")
                .params(
                        ids.supply().next(),
                        file,
                        Timestamp.from(by.now()),
                        by.person().value())
                .update();
        audit.record(by, "take file to the bank", "bank file " + file, Map.of("name", made.name()));
    }
}
