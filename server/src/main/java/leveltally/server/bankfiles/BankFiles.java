package leveltally.server.bankfiles;

import jakarta.persistence.EntityManager;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.bankfiles.FileName;
import leveltally.core.bankfiles.FilePurpose;
import leveltally.core.bankfiles.FileState;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.RecordWriter;
import leveltally.core.bankfiles.Sums;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.bankfiles.WaitingEvents.Going;
import leveltally.server.bankfiles.WaitingEvents.Told;
import leveltally.server.bankfiles.WaitingEvents.Which;
import leveltally.server.checks.BankEvents;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.LayoutInForce;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Files for banks. Waiting events decide what goes in, never a typed date; a file of any length is written record by record. */
@Service
public class BankFiles {
    /** Of more than so many events the first are shown. */
    private static final int MOST_SHOWN = 5_000;

    private static final int MOST_TRIED = 300;
    private static final int LONGEST_WORDS = 200;

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final WaitingEvents events;
    private final FileParts parts;
    private final BankEvents told;
    private final JsonMapper json;
    private final AuditTrail audit;

    BankFiles(
            EntityManager entities,
            JdbcClient jdbc,
            BankAccounts accounts,
            WaitingEvents events,
            FileParts parts,
            BankEvents told,
            JsonMapper json,
            AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.events = events;
        this.parts = parts;
        this.told = told;
        this.json = json;
        this.audit = audit;
    }

    /**
     * What the next file would hold.
     *
     * @param going all that goes into it, and what stays
     * @param shown the first of it, and {@code file} their records with header and trailer of all
     */
    record Draft(
            BankAccount account, Layout layout, BankFile.About about, Going going, List<Told> shown, BankFile file) {}

    /** A file's bytes under its name. */
    public record Content(String name, byte[] bytes) {}

    /** A file, whose bytes are asked for when they are read. */
    public record Made(String name, long bytes, BankAccountId account) {}

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
    Draft preview(BankAccountId id, LocalDate today, Narrowed narrowed) {
        BankAccount account = accounts.get(id);
        mustBeTold(account);
        return draft(account, layout(account, today), today, events.look(account, Which.WAITING, narrowed), MOST_SHOWN);
    }

    /** What waits, the first of it, as another layout would tell it; where nothing waits, what was told last. */
    @Transactional(readOnly = true)
    Draft tried(BankAccountId id, Layout layout, LocalDate today) {
        BankAccount account = accounts.get(id);
        Going waiting = events.look(account, Which.WAITING, Narrowed.NOT);
        Going going = waiting.isNothing() ? events.look(account, Which.TOLD_LAST, Narrowed.NOT) : waiting;
        return draft(account, layout, today, going, MOST_TRIED);
    }

    /**
     * The same as a file a bank is to try: marked as such by its name, and in it where the layout has a field for that. It takes no
     * serial number, is kept nowhere and tells nobody anything.
     */
    @Transactional
    Content test(Actor by, BankAccountId id, Layout layout) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        BankAccount account = accounts.get(id);
        Going waiting = events.look(account, Which.WAITING, Narrowed.NOT);
        Going going = waiting.isNothing() ? events.look(account, Which.TOLD_LAST, Narrowed.NOT) : waiting;
        List<BankFile.Item> items =
                events.first(going, MOST_TRIED).stream().map(Told::item).toList();
        BankFile.About about = about(account, by.today(), 1).tested();
        BankFile file = BankFile.of(layout, about, items);
        file.findings().stream().findFirst().ifPresent(BankFiles::doesNotFit);
        audit.record(
                by,
                "make test file",
                "bank account " + id.value(),
                Map.of("layout", layout.name(), "events", items.size()));
        return new Content(FileName.of(layout.fileName(), about), file.bytes());
    }

    private static void doesNotFit(BankFile.Finding first) {
        throw Refusal.invalid(
                "does-not-fit", "Row " + first.row() + ", field " + first.field() + ": " + first.sentence());
    }

    /** Without a serial number it is only looked at. */
    private Draft draft(BankAccount account, Layout layout, LocalDate today, Going going, int most) {
        BankFile.About about = about(account, today, 0).masked();
        List<Told> shown = events.first(going, most);
        return new Draft(
                account,
                layout,
                about,
                going,
                shown,
                BankFile.of(
                        layout,
                        about,
                        going.sums(),
                        shown.stream().map(Told::item).toList()));
    }

    private static BankFile.About about(BankAccount account, LocalDate today, long serial) {
        return new BankFile.About(account.routingNumber(), account.accountNumber(), account.currency(), today, serial);
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
        mustBeTold(account);
        Going going = events.look(account, Which.WAITING, narrowed);
        if (going.isNothing()) {
            throw Refusal.conflict(
                    "nothing-waits",
                    going.staying() > 0
                            ? "Nothing that waits is in this range; " + going.staying() + " stay. Widen it."
                            : "The bank has heard everything of " + account.name() + "; there is nothing to tell.");
        }
        long file = positivePay(by, account, going, false, narrowed.inWords(seriesName(narrowed)));
        putDown(file, going, some -> told.putIn(file, some));
        return file;
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
        Going going = events.look(account, Which.OUT, Narrowed.NOT);
        if (going.isNothing()) {
            throw Refusal.conflict("nothing-out", "The bank knows of no check of " + account.name() + " that is out.");
        }
        String kept = why.strip();
        long file = positivePay(
                by, account, going, true, kept.length() > LONGEST_WORDS ? kept.substring(0, LONGEST_WORDS) : kept);
        putDown(file, going, none -> {});
        return file;
    }

    private void putDown(long file, Going going, Consumer<List<Long>> each) {
        int[] before = {0};
        events.each(going.ids(), some -> {
            List<Long> ids = some.stream().map(Told::event).toList();
            events.putDown(file, ids, before[0]);
            each.accept(ids);
            before[0] += ids.size();
        });
    }

    private long positivePay(Actor by, BankAccount account, Going going, boolean anew, String narrowed) {
        long serial = accounts.takeFileSerial(account.id());
        BankFileEntity file =
                row(by, account, FilePurpose.POSITIVE_PAY, layoutOf(account, by.today()), serial, going.sums());
        file.anew = anew;
        file.narrowed = narrowed;
        file.followsId = anew ? null : lastRefused(account.id());
        return write(
                by,
                anew ? "tell bank anew" : "make bank file",
                file,
                layout(account, by.today()),
                about(account, by.today(), serial),
                going.sums(),
                writes -> events.each(going.ids(), some -> some.forEach(one -> writes.accept(one.item()))));
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
        Sums sums = Sums.of(items, account.currency());
        return write(
                by,
                "tell bank decisions",
                row(by, account, FilePurpose.DECISIONS, layout.id(), serial, sums),
                layout.layout(),
                about(account, by.today(), serial),
                sums,
                items::forEach);
    }

    private static BankFileEntity row(
            Actor by, BankAccount account, FilePurpose purpose, long layout, long serial, Sums sums) {
        BankFileEntity file = new BankFileEntity();
        file.bankAccountId = account.id().value();
        file.purpose = purpose;
        file.layoutId = layout;
        file.serial = serial;
        file.madeAt = by.now();
        file.madeBy = by.person().value();
        file.madeOn = by.today();
        file.items = sums.issues() + sums.voids();
        file.currency = account.currency().getCurrencyCode();
        file.totalMinor = sums.issued().minor();
        file.voids = sums.voids();
        file.voidMinor = sums.voided().minor();
        file.state = FileState.MADE;
        file.answerNote = "";
        file.narrowed = "";
        return file;
    }

    /** Writes the file aside first: whatever does not fit is found before anything is kept. */
    private long write(
            Actor by,
            String deed,
            BankFileEntity file,
            Layout layout,
            BankFile.About about,
            Sums sums,
            Consumer<Consumer<BankFile.Item>> items) {
        List<BankFile.Finding> findings = new ArrayList<>();
        try (Spool spool = new Spool()) {
            begin(layout, spool);
            RecordWriter writer = new RecordWriter(layout, about, sums, finding -> {
                if (findings.isEmpty()) {
                    findings.add(finding);
                }
            });
            spool.write(writer::header);
            items.accept(item -> spool.write(to -> writer.details(item, to)));
            spool.write(writer::trailer);
            Spool.Written written = spool.end();
            findings.stream().findFirst().ifPresent(BankFiles::doesNotFit);
            file.fileName = FileName.of(layout.fileName(), about);
            file.bytes = written.bytes();
            file.contentHash = written.hash();
            entities.persist(file);
            entities.flush();
            parts.keep(file.id, spool.content());
        }
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

    private static void begin(Layout layout, Spool spool) {
        try {
            BankFile.begin(layout, spool.out());
        } catch (IOException full) {
            throw new UncheckedIOException(full);
        }
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

    /** The same bytes every time. */
    public InputStream open(long id) {
        made(id);
        return parts.open(id);
    }

    /** @throws Refusal when there is no such file */
    @Transactional(readOnly = true)
    public Made made(long id) {
        BankFileEntity file = entities.find(BankFileEntity.class, id);
        if (file == null) {
            throw Refusal.notFound("no-file", "There is no such bank file. Choose one from the list.");
        }
        return new Made(file.fileName, file.bytes, new BankAccountId(file.bankAccountId));
    }

    private @Nullable Long lastRefused(BankAccountId account) {
        return jdbc.sql("""
                        SELECT f.id FROM bank_file f WHERE f.bank_account_id = :account AND f.purpose = :purpose
                        AND f.state = :refused AND NOT f.anew AND f.serial = (
                          SELECT MAX(g.serial) FROM bank_file g WHERE g.bank_account_id = :account AND g.purpose = :purpose AND NOT g.anew)
                        """)
                .param("account", account.value())
                .param("purpose", FilePurpose.POSITIVE_PAY.name())
                .param("refused", FileState.REFUSED.name())
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

    private Layout layout(BankAccount account, LocalDate today) {
        return BankLayoutFile.read(entities.find(LayoutEntity.class, layoutOf(account, today)).definition, json);
    }

    private static long layoutOf(BankAccount account, LocalDate today) {
        LayoutInForce layout = account.layout();
        if (layout == null) {
            throw Refusal.conflict(
                    "no-layout", account.name() + " has no bank file layout. An administrator sets one.");
        }
        return layout.on(today);
    }
}
