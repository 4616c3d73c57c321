package leveltally.server.electronic;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.Collection;
import java.util.Currency;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import leveltally.core.Refusal;
import leveltally.core.electronic.AchAgreement;
import leveltally.core.electronic.CutOff;
import leveltally.core.electronic.FileAgreement;
import leveltally.core.electronic.TransferAgreement;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.audit.AuditTrail;
import leveltally.server.company.BusinessDay;
import leveltally.server.frame.Seal;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.BankHolidays;
import leveltally.server.ledger.WayToPay;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** What banks agreed on for the files of payments, way by way, and the references their payments come by. */
@Service
public class ElectronicWays {
    private static final Pattern PREFIX = Pattern.compile("[A-Z0-9]{0,5}");
    /** Ten digits beside the longest prefix, which is as long as an entry's own number may be. */
    private static final long HIGHEST_REFERENCE = 9_999_999_999L;

    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final BankHolidays holidays;
    private final BusinessDay day;
    private final Seal seal;
    private final JsonMapper json;
    private final AuditTrail audit;

    ElectronicWays(
            JdbcClient jdbc,
            BankAccounts accounts,
            BankHolidays holidays,
            BusinessDay day,
            Seal seal,
            JsonMapper json,
            AuditTrail audit) {
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.holidays = holidays;
        this.day = day;
        this.seal = seal;
        this.json = json;
        this.audit = audit;
    }

    /**
     * What the bank agreed on, as it is wanted.
     *
     * @param iban of the company's account where files name it so; null to leave the one there is, empty for none
     * @param bic of its bank; only with an IBAN
     * @param perPayment typed amounts; empty for any
     * @param cutOff such as {@code 15:00}
     * @param nextReference the first number of the next payment
     * @param version of what is changed; 0 where nothing is there yet
     */
    public record WantedFiles(
            FileAgreement agreement,
            @Nullable String iban,
            String bic,
            String perPayment,
            String perFile,
            String perDay,
            boolean splits,
            String cutOff,
            int ahead,
            String prefix,
            long nextReference,
            long version) {}

    private static final String OF_WAY = """
            SELECT e.way_id, w.bank_account_id, w.name, w.method, e.sender, e.own_sealed, e.payment_limit_minor, e.file_limit_minor,
              e.day_limit_minor, e.splits, e.cut_off, e.days_ahead, e.reference_prefix, e.next_reference, e.version
            FROM electronic_way e JOIN way_to_pay w ON w.id = e.way_id WHERE e.way_id IN (:ways)
            """;

    /** What was agreed on for a way; empty where nobody said yet. */
    @Transactional(readOnly = true)
    Optional<ElectronicWay> find(WayId way) {
        return read(way, "");
    }

    /** @throws Refusal where nobody said yet what the bank agreed on */
    @Transactional(readOnly = true)
    ElectronicWay get(BankAccountId account, WayId way) {
        return find(way).orElseThrow(() -> notSetUp(account, way));
    }

    /** The same with its row locked until the transaction ends: references come from it. */
    @Transactional
    ElectronicWay lock(BankAccountId account, WayId way) {
        return read(way, " FOR UPDATE").orElseThrow(() -> notSetUp(account, way));
    }

    private Refusal notSetUp(BankAccountId account, WayId way) {
        BankAccount of = accounts.get(account);
        return Refusal.conflict(
                "way-not-set-up",
                "What the bank of " + of.name() + " agreed on for “"
                        + of.way(way).name()
                        + "” is not known yet, so no file can be made. An administrator says it on the account's page.");
    }

    private Optional<ElectronicWay> read(WayId way, String lock) {
        return jdbc.sql(OF_WAY + lock)
                .param("ways", way.value())
                .query((r, n) -> way(r))
                .optional();
    }

    private ElectronicWay way(ResultSet r) throws SQLException {
        BankAccountId id = new BankAccountId(r.getLong("bank_account_id"));
        BankAccount account = accounts.get(id);
        String own = r.getString("own_sealed");
        Currency currency = account.currency();
        return new ElectronicWay(
                new WayId(r.getLong("way_id")),
                id,
                r.getString("name"),
                json.readValue(r.getString("sender"), kind(PaymentMethod.valueOf(r.getString("method")))),
                own == null
                        ? new BankDetails(account.routingNumber(), account.accountNumber())
                        : BankDetails.of(seal.open(own)),
                limit(r, "payment_limit_minor", currency),
                limit(r, "file_limit_minor", currency),
                limit(r, "day_limit_minor", currency),
                r.getBoolean("splits"),
                r.getObject("cut_off", LocalTime.class),
                r.getInt("days_ahead"),
                r.getString("reference_prefix"),
                r.getLong("next_reference"),
                r.getLong("version"));
    }

    private static Class<? extends FileAgreement> kind(PaymentMethod method) {
        return method == PaymentMethod.ACH ? AchAgreement.class : TransferAgreement.class;
    }

    private static @Nullable Money limit(ResultSet r, String column, Currency currency) throws SQLException {
        Long minor = r.getObject(column, Long.class);
        return minor == null ? null : Money.ofMinor(minor, currency);
    }

    /** Until when its bank takes files of a day. */
    CutOff cutOff(ElectronicWay way) {
        return new CutOff(way.cutOff(), day.zone(), way.ahead(), holidays.of(way.account()));
    }

    /** So many numbers one after the other, used up by asking; the way is locked. */
    void take(ElectronicWay locked, int count) {
        if (locked.nextReference() + count > HIGHEST_REFERENCE) {
            throw Refusal.conflict(
                    "references-end", "The references of this way end here. An administrator gives it another prefix.");
        }
        jdbc.sql("UPDATE electronic_way SET next_reference = next_reference + ? WHERE way_id = ?")
                .params(count, locked.id().value())
                .update();
    }

    /** Says what the bank agreed on for a way of an account. */
    @Transactional
    public void set(Actor by, BankAccountId id, WayId wayId, WantedFiles wanted) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        BankAccount account = accounts.lock(id);
        account.mustBeOpen();
        WayToPay way = account.way(wayId);
        Optional<ElectronicWay> before = find(wayId);
        if (before.map(ElectronicWay::version).orElse(0L) != wanted.version()) {
            throw Refusal.conflict(
                    "changed-meanwhile",
                    "Somebody changed meanwhile what the bank agreed on, or a file was made. Look again; nothing of yours was"
                            + " saved.");
        }
        mustFit(account, way, wanted, before);
        BankDetails own = own(wanted, before);
        Map<String, Object> row = new HashMap<>();
        row.put("way", wayId.value());
        row.put("sender", json.writeValueAsString(wanted.agreement()));
        row.put("own", own == null ? null : seal.seal(own.canonical()));
        row.put("payment", minor(wanted.perPayment(), account, "perPayment"));
        row.put("file", minor(wanted.perFile(), account, "perFile"));
        row.put("day", minor(wanted.perDay(), account, "perDay"));
        row.put("splits", wanted.splits());
        row.put("cutOff", hour(wanted.cutOff()));
        row.put("ahead", wanted.ahead());
        row.put("prefix", wanted.prefix());
        row.put("next", wanted.nextReference());
        jdbc.sql(before.isEmpty() ? """
                        INSERT INTO electronic_way (way_id, sender, own_sealed, payment_limit_minor, file_limit_minor, day_limit_minor,
                          splits, cut_off, days_ahead, reference_prefix, next_reference, version)
                        VALUES (:way, :sender, :own, :payment, :file, :day, :splits, :cutOff, :ahead, :prefix, :next, 1)
                        """ : """
                        UPDATE electronic_way SET sender = :sender, own_sealed = :own, payment_limit_minor = :payment,
                          file_limit_minor = :file, day_limit_minor = :day, splits = :splits, cut_off = :cutOff, days_ahead = :ahead,
                          reference_prefix = :prefix, next_reference = :next, version = version + 1 WHERE way_id = :way
                        """).params(row).update();
        audit.record(
                by,
                "set files of way to pay",
                "bank account " + id.value(),
                Map.of(
                        "way",
                        way.name(),
                        "agreed",
                        String.valueOf(row.get("sender")),
                        "limits",
                        wanted.perPayment() + " / " + wanted.perFile() + " / " + wanted.perDay(),
                        "until",
                        wanted.cutOff(),
                        "next reference",
                        wanted.prefix() + wanted.nextReference(),
                        "own account",
                        own == null ? "as the account is" : own.masked()));
    }

    private static void mustFit(BankAccount account, WayToPay way, WantedFiles wanted, Optional<ElectronicWay> before) {
        if (way.method() != wanted.agreement().method() || way.recordedOnly()) {
            throw Refusal.invalidField(
                    "no-files",
                    "method",
                    "“" + way.name() + "” pays by " + way.method().words() + ", which has no such files.");
        }
        if (way.method() == PaymentMethod.ACH
                && !account.currency().getCurrencyCode().equals("USD")) {
            throw Refusal.invalidField(
                    "ach-currency",
                    "method",
                    "ACH carries USD only, and this account is in "
                            + account.currency().getCurrencyCode() + ".");
        }
        if (!PREFIX.matcher(wanted.prefix()).matches()) {
            throw Refusal.invalidField(
                    "reference-prefix", "prefix", "A prefix has at most five capital letters and digits, or none.");
        }
        long least = before.map(ElectronicWay::nextReference).orElse(1L);
        if (wanted.nextReference() < least || wanted.nextReference() > HIGHEST_REFERENCE) {
            throw Refusal.invalidField(
                    "next-reference",
                    "nextReference",
                    "References go on only: the next one is " + least + " or more, with at most ten digits.");
        }
        if (wanted.ahead() < 0 || wanted.ahead() > CutOff.MOST_AHEAD) {
            throw Refusal.invalidField(
                    "days-ahead", "ahead", "A bank needs 0 to " + CutOff.MOST_AHEAD + " banking days.");
        }
    }

    private static @Nullable BankDetails own(WantedFiles wanted, Optional<ElectronicWay> before) {
        String iban = wanted.iban();
        if (iban == null) {
            return before.map(ElectronicWay::own)
                    .filter(own -> own.kind() == BankDetails.Kind.IBAN)
                    .map(own -> BankDetails.typed("", own.account(), false, wanted.bic()))
                    .orElse(null);
        }
        return iban.isBlank() ? null : BankDetails.typed("", iban, false, wanted.bic());
    }

    private static @Nullable Long minor(String typed, BankAccount account, String field) {
        if (typed.isBlank()) {
            return null;
        }
        Money amount = Money.typed(typed, account.currency(), field);
        if (amount.isNegative() || amount.isZero()) {
            throw Refusal.invalidField(
                    "limit-of-nothing", field, "A limit is more than 0.00. Leave it empty where there is none.");
        }
        return amount.minor();
    }

    private static LocalTime hour(String typed) {
        try {
            return LocalTime.parse(typed.strip());
        } catch (DateTimeParseException none) {
            throw Refusal.invalidField("no-hour", "cutOff", "Type the hour so: 15:00.");
        }
    }

    /** The names of ways for which the bank's agreement is known. */
    @Transactional(readOnly = true)
    Map<WayId, ElectronicWay> of(Collection<WayId> ways) {
        Map<WayId, ElectronicWay> found = new HashMap<>();
        if (!ways.isEmpty()) {
            jdbc.sql(OF_WAY)
                    .param("ways", ways.stream().map(WayId::value).toList())
                    .query((r, n) -> way(r))
                    .list()
                    .forEach(way -> found.put(way.id(), way));
        }
        return found;
    }
}
