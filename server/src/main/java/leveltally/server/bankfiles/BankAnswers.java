package leveltally.server.bankfiles;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.checks.BankEvents;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a bank says of a file it was given: taken, taken but for some checks, or refused. */
@Service
public class BankAnswers {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final BankEvents told;
    private final AuditTrail audit;

    BankAnswers(EntityManager entities, JdbcClient jdbc, BankEvents told, AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.told = told;
        this.audit = audit;
    }

    /** An event the bank refused of a file it took, by the number of its check, and what it said. */
    public record RefusedEvent(String number, String why) {}

    /** The bank took the file. */
    @Transactional
    public void accepted(Actor by, long id, String note) {
        accepted(by, id, note, List.of());
    }

    /** The bank took the file but for these, which wait again. */
    @Transactional
    public void accepted(Actor by, long id, String note, List<RefusedEvent> refused) {
        answer(by, id, BankFileEntity.State.ACCEPTED, note);
        entities.flush();
        for (RefusedEvent one : refused) {
            refuse(id, one);
        }
        if (!refused.isEmpty()) {
            audit.record(
                    by,
                    "bank refused events",
                    "bank file " + id,
                    Map.of("numbers", refused.stream().map(RefusedEvent::number).toList()));
        }
    }

    private void refuse(long file, RefusedEvent one) {
        if (one.why().isBlank()) {
            throw Refusal.invalidField(
                    "reason-missing", "refused", "Say what the bank found wrong with check " + one.number() + ".");
        }
        List<Long> events = jdbc.sql("""
                        SELECT x.event_id FROM bank_file_item x JOIN bank_event e ON e.id = x.event_id
                        JOIN check_number n ON n.id = e.check_number_id JOIN number_series s ON s.id = n.series_id
                        WHERE x.file_id = :file AND x.refused_why IS NULL
                          AND (CONCAT(s.prefix, n.number) = :number OR CAST(n.number AS CHAR) = :number)
                        """)
                .param("file", file)
                .param("number", one.number().strip())
                .query(Long.class)
                .list();
        if (events.isEmpty()) {
            throw Refusal.invalidField(
                    "not-in-file",
                    "refused",
                    "This file tells of no check " + one.number() + ", or it stands here twice.");
        }
        String why = one.why().strip();
        jdbc.sql("UPDATE bank_file_item SET refused_why = :why WHERE file_id = :file AND event_id IN (:events)")
                .param("why", why.length() > 200 ? why.substring(0, 200) : why)
                .param("file", file)
                .param("events", events)
                .update();
        // what a file told anew stands in the file that told it first
        told.waitAgain(file, events);
    }

    /** The bank refused the file: its events wait again, and go into a new one. */
    @Transactional
    public void refused(Actor by, long id, String note) {
        if (note.isBlank()) {
            throw Refusal.invalidField("reason-missing", "note", "Say what the bank found wrong.");
        }
        answer(by, id, BankFileEntity.State.REFUSED, note);
        entities.flush();
        told.waitAgain(id);
    }

    private void answer(Actor by, long id, BankFileEntity.State state, String note) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        BankFileEntity file = entities.find(BankFileEntity.class, id);
        if (file == null) {
            throw Refusal.notFound("no-file", "There is no such bank file. Choose one from the list.");
        }
        entities.refresh(file, LockModeType.PESSIMISTIC_WRITE);
        if (file.state != BankFileEntity.State.MADE) {
            throw Refusal.conflict(
                    "answered-already",
                    "The bank's answer to file " + file.serial + " is recorded already: "
                            + file.state.name().toLowerCase(java.util.Locale.ROOT) + ".");
        }
        file.state = state;
        file.answeredAt = by.now();
        file.answeredBy = by.person().value();
        file.answerNote = note.strip();
        audit.record(
                by,
                "bank file " + state.name().toLowerCase(java.util.Locale.ROOT),
                "bank file " + id,
                Map.of("note", note));
    }

    /**
     * A file an answer is about.
     *
     * @param state what is recorded of it: MADE, ACCEPTED or REFUSED
     */
    public record Answered(long id, long serial, FilePurpose purpose, String state) {
        /** Whether what is recorded already says otherwise. */
        public boolean isOtherwise(boolean taken, boolean whole) {
            return state.equals(BankFileEntity.State.ACCEPTED.name()) && !(taken && whole)
                    || state.equals(BankFileEntity.State.REFUSED.name()) && taken;
        }
    }

    /** The file of an account by the name, or the serial, under which the bank was given it; the newest of that name. */
    @Transactional(readOnly = true)
    public Optional<Answered> answered(BankAccountId account, String name, @Nullable Long serial) {
        return jdbc.sql(
                        "SELECT id, serial, purpose, state FROM bank_file WHERE bank_account_id = ? AND (file_name = ? OR ? = '' AND serial = ?)"
                                + " ORDER BY id DESC LIMIT 1")
                .params(java.util.Arrays.asList(account.value(), name, name, serial))
                .query(Answered.class)
                .optional();
    }
}
