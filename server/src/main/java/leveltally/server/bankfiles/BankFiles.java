package leveltally.server.bankfiles;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import leveltally.core.Refusal;
import leveltally.core.Sha256;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.bankfiles.FileName;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.Sums;
import leveltally.core.checks.BankKnows;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.checks.BankEvents;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Positive pay files. Waiting events decide what goes in, never a typed date. */
@Service
public class BankFiles {
    private static final int MOST_TRIED = 300;
    private static final String WAITING = "e.file_id IS NULL";
    private static final String TOLD_LAST =
            "e.file_id = (SELECT MAX(t.id) FROM bank_file t WHERE t.bank_account_id = e.bank_account_id)";

    /** Issues the bank was told of whose checks are out. */
    private static final String OUT =
            "e.file_id IS NOT NULL AND e.kind = 'ISSUE' AND p.state IN ('OUTSTANDING', 'STOPPED')";

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final BankEvents told;
    private final JsonMapper json;
    private final AuditTrail audit;

    BankFiles(
            EntityManager entities,
            JdbcClient jdbc,
            BankAccounts accounts,
            BankEvents told,
            JsonMapper json,
            AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.told = told;
        this.json = json;
        this.audit = audit;
    }

    /**
     * An event that waits, as the file would tell it.
     *
     * @param issue where the issue of its check stands
     */
    record Waiting(long event, long series, BankFile.Item item, BankKnows.Issue issue) {
        boolean goes() {
            return item.kind() == BankFile.Item.Kind.ISSUE || issue.letsVoidGo();
        }
    }

    /**
     * What the next file would hold.
     *
     * @param heldBack how many voids wait for the answer to the file of their issue
     * @param staying how many of all that could go stay, because it is narrowed
     */
    record Draft(
            BankAccount account,
            Layout layout,
            BankFile.About about,
            List<Waiting> waiting,
            int heldBack,
            int staying,
            BankFile file) {}

    /** A file's bytes under its name. */
    public record Content(String name, byte[] bytes) {}

    /** Keeps a layout as data. */
    @Transactional
    public long addLayout(Layout layout) {
        LayoutEntity row = new LayoutEntity();
        row.name = layout.name();
        row.versionNumber = 1;
        row.fileUse = layout.use();
        row.definition = BankLayoutFile.write(layout, json);
        entities.persist(row);
        return row.id;
    }

    /** What the next file of an account would hold now; takes no serial number and changes nothing. */
    @Transactional(readOnly = true)
    Draft preview(BankAccountId account, LocalDate today, Narrowed narrowed) {
        return draft(accounts.get(account), today, 0, false, narrowed);
    }

    /** What waits, the first of it, as another layout would tell it; where nothing waits, what was told last. */
    @Transactional(readOnly = true)
    Draft tried(BankAccountId id, Layout layout, LocalDate today) {
        BankAccount account = accounts.get(id);
        List<Waiting> waiting = waiting(account, WAITING, MOST_TRIED);
        return draft(
                account,
                layout,
                today,
                0,
                waiting.isEmpty() ? waiting(account, TOLD_LAST, MOST_TRIED) : waiting,
                Narrowed.NOT);
    }

    /** Makes a file of everything that waits; each event is in it exactly once (law L5). */
    @Transactional
    public long make(Actor by, BankAccountId id) {
        return make(by, id, Narrowed.NOT);
    }

    /** Makes a file of what waits and is not narrowed out, which waits on. */
    @Transactional
    public long make(Actor by, BankAccountId id, Narrowed narrowed) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        BankAccount account = accounts.lock(id);
        long serial = accounts.takeFileSerial(id);
        Draft draft = draft(account, by.today(), serial, true, narrowed);
        if (draft.waiting().isEmpty()) {
            throw Refusal.conflict(
                    "nothing-waits",
                    draft.staying() > 0
                            ? "Nothing that waits is in this range; " + draft.staying() + " stay. Widen it."
                            : "The bank has heard everything of " + account.name() + "; there is nothing to tell.");
        }
        BankFileEntity file = keep(by, account, draft, serial, false, narrowed.inWords(seriesName(narrowed)));
        claim(file.id, draft.waiting());
        told.putIn(file.id, draft.waiting().stream().map(Waiting::event).toList());
        return file.id;
    }

    /** Tells the bank anew of every check it knows and has not paid, because it asks so; none of it counts twice. */
    @Transactional
    public long tellAnew(Actor by, BankAccountId id, String why) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        if (why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "why", "Say what the bank asked for.");
        }
        BankAccount account = accounts.lock(id);
        mustBeTold(account);
        long serial = accounts.takeFileSerial(id);
        Layout layout = BankLayoutFile.read(entities.find(LayoutEntity.class, layoutOf(account)).definition, json);
        Draft draft =
                draft(account, layout, by.today(), serial, waiting(account, OUT, Integer.MAX_VALUE), Narrowed.NOT);
        if (draft.waiting().isEmpty()) {
            throw Refusal.conflict("nothing-out", "The bank knows of no check of " + account.name() + " that is out.");
        }
        String kept = why.strip();
        BankFileEntity file =
                keep(by, account, draft, serial, true, kept.length() > 200 ? kept.substring(0, 200) : kept);
        claim(file.id, draft.waiting());
        return file.id;
    }

    /**
     * Makes a file of what was decided of checks the bank asks about.
     *
     * @return its id
     */
    @Transactional
    public long ofDecisions(Actor by, BankAccountId id, KeptLayouts.TellingLayout layout, List<BankFile.Item> items) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        BankAccount account = accounts.lock(id);
        long serial = jdbc.sql(
                        "SELECT COALESCE(MAX(serial), 0) + 1 FROM bank_file WHERE bank_account_id = ? AND purpose = ?")
                .params(id.value(), FilePurpose.DECISIONS.name())
                .query(Long.class)
                .single();
        BankFile.About about = new BankFile.About(
                account.routingNumber(), account.accountNumber(), account.currency(), by.today(), serial);
        BankFileEntity file = row(
                by,
                account,
                FilePurpose.DECISIONS,
                layout.id(),
                FileName.of(layout.layout().fileName(), about),
                serial,
                BankFile.of(layout.layout(), about, items),
                items);
        return kept(by, file, "tell bank decisions");
    }

    private BankFileEntity keep(
            Actor by, BankAccount account, Draft draft, long serial, boolean anew, String narrowed) {
        List<BankFile.Item> items = draft.waiting().stream().map(Waiting::item).toList();
        BankFileEntity file = row(
                by,
                account,
                FilePurpose.POSITIVE_PAY,
                layoutOf(account),
                FileName.of(draft.layout().fileName(), draft.about()),
                serial,
                draft.file(),
                items);
        file.anew = anew;
        file.narrowed = narrowed;
        file.followsId = anew ? null : lastRefused(account.id());
        kept(by, file, anew ? "tell bank anew" : "make bank file");
        return file;
    }

    private static BankFileEntity row(
            Actor by,
            BankAccount account,
            FilePurpose purpose,
            long layout,
            String name,
            long serial,
            BankFile made,
            List<BankFile.Item> items) {
        if (!made.findings().isEmpty()) {
            BankFile.Finding first = made.findings().get(0);
            throw Refusal.invalid(
                    "does-not-fit", "Row " + first.row() + ", field " + first.field() + ": " + first.sentence());
        }
        BankFileEntity file = new BankFileEntity();
        file.bankAccountId = account.id().value();
        file.purpose = purpose;
        file.layoutId = layout;
        file.serial = serial;
        file.fileName = name;
        file.madeAt = by.now();
        file.madeBy = by.person().value();
        file.content = made.bytes();
        file.contentHash = Sha256.hex(file.content);
        file.items = items.size();
        file.currency = account.currency().getCurrencyCode();
        Sums sums = Sums.of(items, account.currency());
        file.totalMinor = sums.issued().minor();
        file.voids = sums.voids();
        file.voidMinor = sums.voided().minor();
        file.state = BankFileEntity.State.MADE;
        file.answerNote = "";
        file.narrowed = "";
        return file;
    }

    private long kept(Actor by, BankFileEntity file, String deed) {
        entities.persist(file);
        entities.flush();
        audit.record(
                by,
                deed,
                "bank file " + file.id,
                Map.of(
                        "account",
                        file.bankAccountId,
                        "serial",
                        file.serial,
                        "events",
                        file.items,
                        "hash",
                        file.contentHash,
                        "narrowed",
                        file.narrowed));
        return file.id;
    }

    private String seriesName(Narrowed narrowed) {
        return narrowed.series() == null
                ? ""
                : jdbc.sql("SELECT way_name FROM series_of_account WHERE id = ?")
                        .param(narrowed.series())
                        .query(String.class)
                        .optional()
                        .orElse("no series");
    }

    private void claim(long file, List<Waiting> waiting) {
        List<Long> events = waiting.stream().map(Waiting::event).toList();
        jdbc.sql("INSERT INTO bank_file_item (file_id, event_id, position)"
                        + " SELECT :file, e.id, ROW_NUMBER() OVER (ORDER BY n.number, e.kind) FROM bank_event e"
                        + " JOIN check_number n ON n.id = e.check_number_id WHERE e.id IN (:events)")
                .param("file", file)
                .param("events", events)
                .update();
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
        BankFileEntity file = row(id);
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

    /** A file an answer is about. */
    public record Answered(long id, long serial, FilePurpose purpose) {}

    /** The file of an account by the name, or the serial, under which the bank was given it; the newest of that name. */
    @Transactional(readOnly = true)
    public Optional<Answered> answered(BankAccountId account, String name, @Nullable Long serial) {
        return jdbc.sql(
                        "SELECT id, serial, purpose FROM bank_file WHERE bank_account_id = ? AND (file_name = ? OR ? = '' AND serial = ?)"
                                + " ORDER BY id DESC LIMIT 1")
                .params(java.util.Arrays.asList(account.value(), name, name, serial))
                .query(Answered.class)
                .optional();
    }

    /** The same bytes every time. */
    @Transactional(readOnly = true)
    public Content content(long id) {
        BankFileEntity file = row(id);
        return new Content(file.fileName, file.content);
    }

    private BankFileEntity row(long id) {
        BankFileEntity file = entities.find(BankFileEntity.class, id);
        if (file == null) {
            throw Refusal.notFound("no-file", "There is no such bank file. Choose one from the list.");
        }
        return file;
    }

    private @Nullable Long lastRefused(BankAccountId account) {
        return jdbc.sql("""
                        SELECT f.id FROM bank_file f WHERE f.bank_account_id = :account AND f.purpose = :purpose
                        AND f.state = :refused AND NOT f.anew AND f.serial = (
                          SELECT MAX(g.serial) FROM bank_file g WHERE g.bank_account_id = :account AND g.purpose = :purpose AND NOT g.anew)
                        """)
                .param("account", account.value())
                .param("purpose", FilePurpose.POSITIVE_PAY.name())
                .param("refused", BankFileEntity.State.REFUSED.name())
                .query(Long.class)
                .optional()
                .orElse(null);
    }

    private static void mustBeTold(BankAccount account) {
        if (!account.positivePay()) {
            throw Refusal.conflict(
                    "no-positive-pay", account.name() + " is not set up for positive pay, so the bank needs no file.");
        }
    }

    private Draft draft(BankAccount account, LocalDate today, long serial, boolean lock, Narrowed narrowed) {
        mustBeTold(account);
        if (lock) {
            // their rows alone: the files of their issues belong to whoever records an answer
            jdbc.sql("SELECT id FROM bank_event WHERE bank_account_id = :account AND file_id IS NULL"
                            + " AND never_reported IS NULL ORDER BY id FOR UPDATE")
                    .param("account", account.id().value())
                    .query(Long.class)
                    .list();
        }
        Layout layout = BankLayoutFile.read(entities.find(LayoutEntity.class, layoutOf(account)).definition, json);
        return draft(account, layout, today, serial, waiting(account, WAITING, Integer.MAX_VALUE), narrowed);
    }

    private static Draft draft(
            BankAccount account, Layout layout, LocalDate today, long serial, List<Waiting> all, Narrowed narrowed) {
        List<Waiting> going = all.stream().filter(Waiting::goes).toList();
        List<Waiting> waiting = going.stream().filter(narrowed::takes).toList();
        BankFile.About real =
                new BankFile.About(account.routingNumber(), account.accountNumber(), account.currency(), today, serial);
        // without a serial number it is only looked at
        BankFile.About about = serial == 0 ? real.masked() : real;
        List<BankFile.Item> items = waiting.stream().map(Waiting::item).toList();
        return new Draft(
                account,
                layout,
                about,
                waiting,
                all.size() - going.size(),
                going.size() - waiting.size(),
                BankFile.of(layout, about, items));
    }

    /** @param which of the account's events, as SQL over {@code bank_event e} */
    private List<Waiting> waiting(BankAccount account, String which, int most) {
        return jdbc.sql("""
                SELECT e.id, n.series_id, e.kind, n.number, CONCAT(s.prefix, n.number) AS printed, e.amount_minor, e.currency, p.check_date,
                  e.event_date, e.payee,
                  i.never_reported, f.state = :accepted AS accepted
                FROM bank_event e JOIN check_number n ON n.id = e.check_number_id
                JOIN number_series s ON s.id = n.series_id JOIN payment p ON p.id = n.payment_id
                LEFT JOIN bank_event i ON i.check_number_id = e.check_number_id AND i.kind = :issue
                LEFT JOIN bank_file f ON f.id = i.file_id
                WHERE e.bank_account_id = :account AND %s AND e.never_reported IS NULL
                ORDER BY n.number, e.kind LIMIT :most
                """.formatted(which))
                .param("most", most)
                .param("account", account.id().value())
                .param("issue", BankFile.Item.Kind.ISSUE.name())
                .param("accepted", BankFileEntity.State.ACCEPTED.name())
                .query((r, n) -> new Waiting(
                        r.getLong("id"),
                        r.getLong("series_id"),
                        new BankFile.Item(
                                BankFile.Item.Kind.valueOf(r.getString("kind")),
                                r.getLong("number"),
                                r.getString("printed"),
                                Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                                r.getObject("check_date", LocalDate.class),
                                r.getObject("event_date", LocalDate.class),
                                r.getString("payee")),
                        BankKnows.Issue.of(
                                r.getString("never_reported") != null, r.getObject("accepted", Boolean.class))))
                .list();
    }

    /**
     * Reads every file the bank may go by, byte by byte, against the payments as they are (law L5).
     *
     * @return a sentence for each record that says something else
     */
    @Transactional(readOnly = true)
    public List<String> untrueRecords() {
        List<String> findings = new ArrayList<>();
        jdbc.sql("SELECT id FROM bank_file WHERE purpose = :purpose AND state <> :refused ORDER BY id")
                .param("purpose", FilePurpose.POSITIVE_PAY.name())
                .param("refused", BankFileEntity.State.REFUSED.name())
                .query(Long.class)
                .list()
                .forEach(id -> findings.addAll(untrueRecords(row(id))));
        return findings;
    }

    private List<String> untrueRecords(BankFileEntity file) {
        BankAccount account = accounts.get(new BankAccountId(file.bankAccountId));
        Layout layout = BankLayoutFile.read(entities.find(LayoutEntity.class, file.layoutId).definition, json);
        List<BankFile.Item> paid = jdbc.sql("""
                        SELECT e.kind, n.number, CONCAT(s.prefix, n.number) AS printed, p.amount_minor, p.currency, p.check_date,
                          CASE WHEN e.kind = 'ISSUE' THEN p.check_date ELSE e.event_date END AS told_date, p.payee
                        FROM bank_file_item x JOIN bank_event e ON e.id = x.event_id
                        JOIN check_number n ON n.id = e.check_number_id JOIN number_series s ON s.id = n.series_id
                        JOIN payment p ON p.id = n.payment_id WHERE x.file_id = :file ORDER BY x.position
                        """)
                .param("file", file.id)
                .query((r, n) -> new BankFile.Item(
                        BankFile.Item.Kind.valueOf(r.getString("kind")),
                        r.getLong("number"),
                        r.getString("printed"),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                        r.getObject("check_date", LocalDate.class),
                        r.getObject("told_date", LocalDate.class),
                        r.getString("payee")))
                .list();
        var about = new BankFile.About(
                account.routingNumber(),
                account.accountNumber(),
                account.currency(),
                LocalDate.ofInstant(file.madeAt, ZoneOffset.UTC),
                file.serial);
        BankFile reckoned = BankFile.of(layout, about, paid);
        List<String> written = BankFile.records(layout, file.content);
        List<String> records = reckoned.texts();
        if (written.size() != records.size()) {
            return List.of("Bank file " + file.serial + " has " + written.size() + " records, its events make "
                    + records.size());
        }
        // the first and the last say when it was made and by whom; what they add up is added up from the details
        return IntStream.range(layout.before(), records.size() - layout.after())
                .filter(i -> !written.get(i).equals(records.get(i)))
                .mapToObj(i -> "Bank file " + file.serial + ", record " + (i + 1) + ": it says “"
                        + written.get(i).strip() + "”, the payment of check "
                        + paid.get(reckoned.records().get(i).row() - 1).printed() + " says “"
                        + records.get(i).strip()
                        + "”")
                .toList();
    }

    private static long layoutOf(BankAccount account) {
        Long layout = account.layout();
        if (layout == null) {
            throw Refusal.conflict(
                    "no-layout", account.name() + " has no bank file layout. An administrator sets one.");
        }
        return layout;
    }
}
