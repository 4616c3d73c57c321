package leveltally.server.bankfiles;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.core.bankfiles.FileState;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a bank says of a file it was given: taken, taken but for some of it, or refused. */
@Service
public class BankAnswers {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final Map<FilePurpose, FileHeard> heard;
    private final AuditTrail audit;

    BankAnswers(EntityManager entities, JdbcClient jdbc, List<FileHeard> heard, AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.heard = heard.stream().collect(Collectors.toMap(FileHeard::purpose, one -> one));
        this.audit = audit;
    }

    /** An item the bank refused of a file it took, by the number of its check or its reference, and what it said. */
    public record RefusedItem(String number, String why) {
        private static final int LONGEST_KEPT = 200;

        public RefusedItem {
            number = number.strip();
            why = why.strip();
        }

        /** As much of what it said as is kept. */
        public String kept() {
            return why.length() > LONGEST_KEPT ? why.substring(0, LONGEST_KEPT) : why;
        }
    }

    /** The bank took the file. */
    @Transactional
    public void accepted(Actor by, long id, String note) {
        accepted(by, id, note, List.of());
    }

    /** The bank took the file but for these, which wait again. */
    @Transactional
    public void accepted(Actor by, long id, String note, List<RefusedItem> refused) {
        BankFileEntity file = answer(by, id, FileState.ACCEPTED, note);
        if (!refused.isEmpty()) {
            refuse(by, file, refused);
        }
    }

    /**
     * The bank says later that it refuses some of a file it took.
     *
     * @throws Refusal when it took no such file
     */
    @Transactional
    public void refusedAfterwards(Actor by, long id, List<RefusedItem> refused) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        BankFileEntity file = locked(id);
        if (file.state != FileState.ACCEPTED) {
            throw Refusal.conflict(
                    "not-taken", "The bank has not taken file " + file.serial + ". Record what it says of the file.");
        }
        refuse(by, file, refused);
    }

    private void refuse(Actor by, BankFileEntity file, List<RefusedItem> refused) {
        entities.flush();
        refused.stream().filter(one -> one.why().isEmpty()).findFirst().ifPresent(silent -> {
            throw Refusal.invalidField(
                    "reason-missing", "refused", "Say what the bank found wrong with " + silent.number() + ".");
        });
        heard.get(file.purpose).refused(file.id, refused);
        audit.record(
                by,
                "bank refused items",
                "bank file " + file.id,
                Map.of("numbers", refused.stream().map(RefusedItem::number).toList()));
    }

    /** The bank refused the file: what it told waits again, and goes into a new one. */
    @Transactional
    public void refused(Actor by, long id, String note) {
        if (note.isBlank()) {
            throw Refusal.invalidField("reason-missing", "note", "Say what the bank found wrong.");
        }
        BankFileEntity file = answer(by, id, FileState.REFUSED, note);
        entities.flush();
        heard.get(file.purpose).refused(id);
    }

    private BankFileEntity locked(long id) {
        BankFileEntity file = entities.find(BankFileEntity.class, id);
        if (file == null) {
            throw Refusal.notFound("no-file", "There is no such bank file. Choose one from the list.");
        }
        entities.refresh(file, LockModeType.PESSIMISTIC_WRITE);
        return file;
    }

    private BankFileEntity answer(Actor by, long id, FileState state, String note) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        BankFileEntity file = locked(id);
        if (file.state != FileState.MADE) {
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
        return file;
    }

    /**
     * A file an answer is about.
     *
     * @param state what is recorded of it: MADE, ACCEPTED or REFUSED
     */
    public record Answered(long id, long serial, FilePurpose purpose, String state) {
        /** Whether what is recorded already says otherwise. */
        public boolean isOtherwise(boolean taken, boolean whole) {
            return state.equals(FileState.ACCEPTED.name()) && !(taken && whole)
                    || state.equals(FileState.REFUSED.name()) && taken;
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
