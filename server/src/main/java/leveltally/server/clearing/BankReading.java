package leveltally.server.clearing;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.zip.GZIPOutputStream;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.Sha256;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.RecordReader;
import leveltally.core.clearing.BankReport;
import leveltally.core.clearing.Movement;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.bankfiles.KeptLayouts;
import leveltally.server.frame.WorkIds;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Reads what a bank tells of an account, once and whole, and clears what agrees with its checks. */
@Service
public class BankReading {
    /** No statement of the standard is longer. */
    static final int LONGEST = 64 << 20;

    /** No other file is; its records stand in memory while it is read. */
    private static final int LONGEST_LIST = 24 << 20;

    private static final int LONGEST_NAME = 120;
    private static final int LONGEST_NUMBER = 40;
    private static final int LONGEST_GAP = 300;

    private final BankAccounts accounts;
    private final KeptLayouts layouts;
    private final MovementRows movements;
    private final Clearings clearings;
    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final AuditTrail audit;

    BankReading(
            BankAccounts accounts,
            KeptLayouts layouts,
            MovementRows movements,
            Clearings clearings,
            JdbcClient jdbc,
            WorkIds ids,
            AuditTrail audit) {
        this.accounts = accounts;
        this.layouts = layouts;
        this.movements = movements;
        this.clearings = clearings;
        this.jdbc = jdbc;
        this.ids = ids;
        this.audit = audit;
    }

    /**
     * A file of the bank.
     *
     * @param layout by which it is read; null for a statement by the standard, which says so itself
     * @param gap why it is read although it does not follow the last one; empty where nobody said
     */
    public record Sent(
            BankAccountId account,
            String name,
            byte[] content,
            @Nullable Long layout,
            String gap) {}

    /**
     * What became of it.
     *
     * @param cleared how many checks it cleared
     * @param again how many movements were told before
     * @param stay how many nobody has answered
     */
    public record BankRead(List<Long> reports, int movements, int cleared, int again, int stay) {}

    /** How a report was written, and what it is. */
    private record Format(String name, TheBankSays kind) {}

    /** @throws Refusal when the file is not whole, of another account, read before, or does not follow the last statement */
    @Transactional
    public BankRead read(Actor by, Sent sent) {
        by.mayDo(Deed.RECORD_CLEARING);
        BankAccount account = accounts.lock(sent.account());
        boolean standard = Camt053.isMeant(sent.content());
        mustBeShort(sent.content().length, standard ? LONGEST : LONGEST_LIST);
        String hash = Sha256.hex(sent.content());
        mustBeNew(account, hash);
        List<BankReport> reports;
        Format format;
        if (standard) {
            reports = Camt053.read(sent.content(), account.currency());
            format = new Format("camt.053", TheBankSays.STATEMENT);
        } else {
            KeptLayouts.Kept kept = layouts.toRead(sent.layout());
            RecordReader.Read read = RecordReader.read(kept.layout(), account.currency(), sent.content());
            reports = List.of(BankReport.of(kept.layout(), read));
            boolean statement = reports.get(0).isStatement();
            if (kept.layout().use() == Layout.Use.STATEMENT && !statement) {
                throw Refusal.invalidField(
                        "statement-no-balance",
                        "file",
                        "Nothing was read of this statement: it has no opening and closing balance, and its movements"
                                + " have none after them.");
            }
            format = new Format(kept.name(), statement ? TheBankSays.STATEMENT : TheBankSays.PAID_CHECKS);
        }
        List<BankReport> own = reports.stream()
                .filter(report -> isOf(account, report.account()))
                .toList();
        if (own.isEmpty()) {
            throw Refusal.invalidField(
                    "other-account",
                    "file",
                    "Nothing was read of this file: it is of the account ending in “"
                            + end(reports.get(0).account()) + "”, not of " + account.name()
                            + ". Choose that account, or another file.");
        }
        own.stream()
                .map(BankReport::to)
                .filter(day -> day.isAfter(by.today()))
                .findFirst()
                .ifPresent(day -> {
                    throw Refusal.invalidField(
                            "bank-file-later",
                            "file",
                            "Nothing was read of this file: it tells of " + Dates.inWords(day)
                                    + ", a day that has not come.");
                });
        return keep(by, account, own, format, sent, hash);
    }

    /** @throws Refusal for a file longer than so many bytes */
    static void mustBeShort(long bytes, int most) {
        if (bytes > most) {
            throw Refusal.invalidField(
                    "bank-file-long",
                    "file",
                    "A file of the bank has at most " + (most >> 20)
                            + " MB. Ask the bank for shorter ones, such as one a" + " day.");
        }
    }

    private BankRead keep(
            Actor by, BankAccount account, List<BankReport> reports, Format format, Sent sent, String hash) {
        List<Long> kept = new ArrayList<>();
        Clearings.Outcome all = new Clearings.Outcome(0, 0, 0);
        int told = 0;
        byte[] zipped = zipped(sent.content());
        for (BankReport report : reports) {
            boolean first = kept.isEmpty();
            mustNotBeTheSame(account, format, report);
            String gap = mustFollow(account, report, sent.gap());
            long id = add(by, account, report, format, sent.name(), first ? zipped : null, first ? hash : null, gap);
            kept.add(id);
            List<MovementRows.Told> rows =
                    movements.add(id, format.kind(), account.id(), by.now(), 0, report.movements());
            told += rows.size();
            all = all.with(clearings.clear(by, account.id(), rows));
            audit.record(
                    by,
                    "read from bank",
                    "bank account " + account.id().value(),
                    Map.of(
                            "report", id,
                            "format", format.name(),
                            "number", report.number(),
                            "until", report.to().toString(),
                            "movements", rows.size(),
                            "hash", hash,
                            "gap", gap));
        }
        return new BankRead(List.copyOf(kept), told, all.cleared(), all.again(), all.stay());
    }

    /** Takes down one check the bank paid, as its site or its paper says; what does not agree stays to be answered. */
    @Transactional
    public BankRead byHand(Actor by, BankAccountId id, String number, String amount, LocalDate day) {
        by.mayDo(Deed.RECORD_CLEARING);
        BankAccount account = accounts.lock(id);
        Money paid = Money.typed(amount, account.currency(), "amount");
        if (day.isAfter(by.today())) {
            throw Refusal.invalidField(
                    "bank-date", "day", "The bank paid it today or before; " + Dates.inWords(day) + " has not come.");
        }
        if (!paid.isPositive()) {
            throw Refusal.invalidField("amount-missing", "amount", "Type what the bank paid, above zero.");
        }
        Movement one = new Movement(day, paid.negated(), number, "", "", false);
        if (one.digits().isEmpty()) {
            throw Refusal.invalidField(
                    "number-missing", "number", "Type the number of the check, such as 41237 or HW70012.");
        }
        BankReport report = new BankReport("", "", day, day, null, null, List.of(one));
        long kept = add(by, account, report, new Format("typed", TheBankSays.BY_HAND), "", null, null, "");
        List<MovementRows.Told> rows = movements.add(kept, TheBankSays.BY_HAND, id, by.now(), 0, report.movements());
        Clearings.Outcome outcome = clearings.clear(by, id, rows);
        audit.record(
                by,
                "record paid by bank",
                "bank account " + id.value(),
                Map.of("number", one.number(), "amount", paid.plain(), "date", day.toString()));
        return new BankRead(List.of(kept), 1, outcome.cleared(), outcome.again(), outcome.stay());
    }

    /** Clears what agrees by now: a check posted since, a stop lifted, a payment recorded. */
    @Transactional
    public BankRead lookAgain(Actor by, BankAccountId id) {
        by.mayDo(Deed.RECORD_CLEARING);
        accounts.lock(id);
        List<MovementRows.Told> open = movements.open(id, Integer.MAX_VALUE);
        Clearings.Outcome outcome = clearings.clear(by, id, open);
        if (outcome.cleared() + outcome.again() > 0) {
            audit.record(
                    by,
                    "look again",
                    "bank account " + id.value(),
                    Map.of("cleared", outcome.cleared(), "again", outcome.again()));
        }
        return new BankRead(List.of(), open.size(), outcome.cleared(), outcome.again(), outcome.stay());
    }

    private long add(
            Actor by,
            BankAccount account,
            BankReport report,
            Format format,
            String name,
            byte @Nullable [] zipped,
            @Nullable String hash,
            String gap) {
        long id = ids.supply().next();
        Money none = Money.zero(account.currency());
        Money in = report.movements().stream()
                .map(Movement::amount)
                .filter(Money::isPositive)
                .reduce(none, Money::plus);
        Money out = report.movements().stream().map(Movement::paid).reduce(none, Money::plus);
        Integer place = report.isStatement() ? lastPlace(account) + 1 : null;
        jdbc.sql("""
                        INSERT INTO bank_report (id, bank_account_id, kind, format, file_name, content, content_hash, number, from_day,
                          to_day, currency, opening_minor, closing_minor, movements, out_minor, in_minor, gap, place, read_at, read_by)
                        VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
                        """)
                .params(java.util.Arrays.asList(
                        id,
                        account.id().value(),
                        format.kind().name(),
                        format.name(),
                        shortened(name, LONGEST_NAME),
                        zipped,
                        hash,
                        shortened(report.number(), LONGEST_NUMBER),
                        report.from(),
                        report.to(),
                        account.currency().getCurrencyCode(),
                        report.opening() == null ? null : report.opening().minor(),
                        report.closing() == null ? null : report.closing().minor(),
                        report.movements().size(),
                        out.minor(),
                        in.minor(),
                        gap,
                        place,
                        Timestamp.from(by.now()),
                        by.person().value()))
                .update();
        return id;
    }

    private void mustBeNew(BankAccount account, String hash) {
        jdbc.sql("""
                        SELECT r.file_name, r.read_at, p.name FROM bank_report r JOIN person p ON p.id = r.read_by
                        WHERE r.bank_account_id = ? AND r.content_hash = ?
                        """)
                .params(account.id().value(), hash)
                .query((r, n) -> r.getString("name") + " read this file already, as “" + r.getString("file_name") + "”")
                .optional()
                .ifPresent(read -> {
                    throw Refusal.conflict("read-already", read + ". Nothing was read again.");
                });
    }

    /** The same told in other bytes, such as with other line ends, is the same. */
    private void mustNotBeTheSame(BankAccount account, Format format, BankReport report) {
        jdbc
                .sql("""
                        SELECT id FROM bank_report WHERE bank_account_id = ? AND kind = ? AND number = ? AND from_day = ? AND to_day = ?
                          AND movements = ? AND closing_minor <=> ?
                        """)
                .params(java.util.Arrays.asList(
                        account.id().value(),
                        format.kind().name(),
                        shortened(report.number(), LONGEST_NUMBER),
                        report.from(),
                        report.to(),
                        report.movements().size(),
                        report.closing() == null ? null : report.closing().minor()))
                .query(Long.class)
                .list()
                .stream()
                .filter(same -> movements.of(same).equals(report.movements()))
                .findFirst()
                .ifPresent(same -> {
                    throw Refusal.conflict(
                            "read-already",
                            "What this file tells of " + Dates.inWords(report.to())
                                    + " was read already, movement by movement. Nothing was read again.");
                });
    }

    /** @return why it is read although it does not follow; empty where it does */
    private String mustFollow(BankAccount account, BankReport report, String gap) {
        if (!report.isStatement()) {
            return "";
        }
        Optional<String> missing =
                before(account, report).flatMap(last -> report.gapAfter(last.number(), last.to(), last.closing()));
        if (missing.isEmpty()) {
            return "";
        }
        if (gap.isBlank()) {
            throw Refusal.conflict(
                    "statement-does-not-follow",
                    missing.get() + " Read the one between first, or say why it is read all the same.");
        }
        String why = gap.strip();
        return why.length() > LONGEST_GAP ? why.substring(0, LONGEST_GAP) : why;
    }

    private record Last(String number, LocalDate to, Money closing) {}

    /** The one whose days come before; a statement that was missing may be read after the one that follows it. */
    private Optional<Last> before(BankAccount account, BankReport report) {
        return jdbc.sql("""
                        SELECT number, to_day, closing_minor FROM bank_report WHERE bank_account_id = ? AND place IS NOT NULL
                          AND (from_day < ? OR from_day = ? AND to_day <= ?) ORDER BY from_day DESC, to_day DESC, place DESC LIMIT 1
                        """)
                .params(account.id().value(), report.from(), report.from(), report.to())
                .query((r, n) -> new Last(
                        r.getString("number"),
                        r.getObject("to_day", LocalDate.class),
                        Money.ofMinor(r.getLong("closing_minor"), account.currency())))
                .optional();
    }

    private int lastPlace(BankAccount account) {
        return jdbc.sql("SELECT COALESCE(MAX(place), 0) FROM bank_report WHERE bank_account_id = ?")
                .param(account.id().value())
                .query(Integer.class)
                .single();
    }

    /** A file without a number is of the account it is read for; banks write theirs with zeros, blanks or as an IBAN. */
    private static boolean isOf(BankAccount account, String told) {
        String number = bare(told);
        String own = bare(account.accountNumber());
        return number.isEmpty() || number.equals(own) || isIban(told) && number.endsWith(own);
    }

    private static boolean isIban(String told) {
        return told.strip().toUpperCase(Locale.ROOT).matches("[A-Z]{2}\\d{2}[A-Z0-9 ]{8,40}");
    }

    private static String bare(String number) {
        return number.toUpperCase(Locale.ROOT).replaceAll("[^A-Z0-9]", "").replaceFirst("^0+", "");
    }

    private static String end(String number) {
        return number.length() > 4 ? number.substring(number.length() - 4) : number;
    }

    private static String shortened(String text, int longest) {
        return text.codePointCount(0, text.length()) > longest
                ? text.substring(0, text.offsetByCodePoints(0, longest))
                : text;
    }

    private static byte[] zipped(byte[] content) {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream to = new GZIPOutputStream(packed)) {
            to.write(content);
        } catch (IOException inMemory) {
            throw new UncheckedIOException(inMemory);
        }
        return packed.toByteArray();
    }
}
