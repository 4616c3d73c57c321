package leveltally.server.bankfiles;

import jakarta.persistence.EntityManager;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.core.bankfiles.FileState;
import leveltally.core.electronic.FileAgreement;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.server.audit.AuditTrail;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Keeps files that pay as they were made. */
@Component
public class PaymentFileStore {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final JdbcTemplate many;
    private final FileParts parts;
    private final AuditTrail audit;

    PaymentFileStore(EntityManager entities, JdbcClient jdbc, JdbcTemplate many, FileParts parts, AuditTrail audit) {
        this.many = many;
        this.entities = entities;
        this.jdbc = jdbc;
        this.parts = parts;
        this.audit = audit;
    }

    /** What tells a file from all others: its serial on the account, and its place among the files of its way on this day. */
    public record Numbered(long serial, int ofDay, String dayGroup) {}

    /**
     * A file as it is wanted.
     *
     * @param items payments, which come to {@code total}
     * @param follows the refused file whose payments it carries again; null for none
     */
    public record Wanted(
            BankAccountId account,
            WayId way,
            LocalDate paysOn,
            String name,
            int items,
            Money total,
            @Nullable Long follows) {}

    /** Writes the bytes of a file. */
    @FunctionalInterface
    public interface Writing {
        void to(OutputStream out) throws IOException;
    }

    /**
     * What the next file is told by; the account's row is locked by whoever asks.
     *
     * @param letters by which its bank tells files apart; empty where their ids do that
     * @throws Refusal when there were as many files today as can be told apart
     */
    @Transactional
    public Numbered next(BankAccountId account, WayId way, Optional<FileAgreement.Letters> letters, LocalDate today) {
        long serial = jdbc.sql(
                        "SELECT COALESCE(MAX(serial), 0) + 1 FROM bank_file WHERE bank_account_id = ? AND purpose = ?")
                .params(account.value(), FilePurpose.ELECTRONIC.name())
                .query(Long.class)
                .single();
        String group = letters.map(FileAgreement.Letters::group).orElse("way " + way.value());
        // of two accounts that are one customer to their bank, whoever comes second waits for the first, or begins
        // again
        int ofDay = jdbc.sql(
                        "SELECT COALESCE(MAX(day_number), 0) + 1 FROM bank_file WHERE day_group = ? AND made_on = ?"
                                + " FOR UPDATE")
                .params(group, today)
                .query(Integer.class)
                .single();
        if (letters.isPresent() && ofDay > FileAgreement.Letters.MOST) {
            throw Refusal.conflict(
                    "files-of-the-day",
                    FileAgreement.Letters.MOST
                            + " files were made for this bank today, and it can tell no more apart. Make this one tomorrow.");
        }
        return new Numbered(serial, ofDay, group);
    }

    /** Writes down which payments a file carries, in their order, with the amounts it says. */
    @Transactional
    public void putDown(long file, List<PaymentId> payments, List<Money> amounts) {
        List<Object[]> places = new ArrayList<>();
        for (int i = 0; i < payments.size(); i++) {
            places.add(new Object[] {
                file, payments.get(i).value(), i + 1, amounts.get(i).minor()
            });
        }
        many.batchUpdate(
                "INSERT INTO bank_file_item (file_id, payment_id, position, amount_minor) VALUES (?, ?, ?, ?)", places);
    }

    /** The bank refused this payment of a file it took. */
    @Transactional
    public void refuse(long file, PaymentId payment, String why) {
        jdbc.sql("UPDATE bank_file_item SET refused_why = ? WHERE file_id = ? AND payment_id = ?")
                .params(why, file, payment.value())
                .update();
    }

    /** Which payments of a file the bank has not said of yet what becomes of them; of all others it has. */
    @Transactional
    public void pending(long file, Collection<PaymentId> payments) {
        jdbc.sql("UPDATE bank_file_item SET pending = FALSE WHERE file_id = ? AND pending AND refused_why IS NULL")
                .param(file)
                .update();
        many.batchUpdate(
                "UPDATE bank_file_item SET pending = TRUE WHERE file_id = ? AND payment_id = ? AND refused_why IS NULL",
                payments.stream()
                        .map(payment -> new Object[] {file, payment.value()})
                        .toList());
    }

    /** Of how many payments of a file the bank has not said yet what becomes of them. */
    @Transactional(readOnly = true)
    public int pendingOf(long file) {
        return jdbc.sql("SELECT COUNT(*) FROM bank_file_item WHERE file_id = ? AND pending")
                .param(file)
                .query(Integer.class)
                .single();
    }

    /** The bank said of these what becomes of them. */
    @Transactional
    public void said(long file, Collection<PaymentId> payments) {
        many.batchUpdate(
                "UPDATE bank_file_item SET pending = FALSE WHERE file_id = ? AND payment_id = ? AND refused_why IS NULL",
                payments.stream()
                        .map(payment -> new Object[] {file, payment.value()})
                        .toList());
    }

    /**
     * Writes a file aside first, so that nothing is kept of one that cannot be written.
     *
     * @return its id
     */
    @Transactional
    public long keep(Actor by, Numbered numbered, Wanted wanted, Writing writing) {
        BankFileEntity file = new BankFileEntity();
        file.bankAccountId = wanted.account().value();
        file.purpose = FilePurpose.ELECTRONIC;
        file.wayId = wanted.way().value();
        file.paysOn = wanted.paysOn();
        file.dayNumber = numbered.ofDay();
        file.dayGroup = numbered.dayGroup();
        file.serial = numbered.serial();
        file.fileName = wanted.name();
        file.madeAt = by.now();
        file.madeBy = by.person().value();
        file.madeOn = by.today();
        file.items = wanted.items();
        file.currency = wanted.total().currency().getCurrencyCode();
        file.totalMinor = wanted.total().minor();
        file.state = FileState.MADE;
        file.answerNote = "";
        file.narrowed = "";
        file.followsId = wanted.follows();
        try (Spool spool = new Spool()) {
            writing.to(spool.out());
            Spool.Written written = spool.end();
            file.bytes = written.bytes();
            file.contentHash = written.hash();
            entities.persist(file);
            entities.flush();
            parts.keep(file.id, spool.content());
        } catch (IOException full) {
            throw new UncheckedIOException(full);
        }
        audit.record(
                by,
                "make payment file",
                "bank file " + file.id,
                Map.of(
                        "account",
                        file.bankAccountId,
                        "serial",
                        file.serial,
                        "payments",
                        file.items,
                        "total",
                        wanted.total().plain(),
                        "pays on",
                        wanted.paysOn().toString(),
                        "hash",
                        file.contentHash));
        return file.id;
    }
}
