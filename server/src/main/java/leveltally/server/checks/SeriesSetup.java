package leveltally.server.checks;

import jakarta.persistence.EntityManager;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.checks.NumberRange;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Stock;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.paper.MicrPattern;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.WayToPay;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Adds series of check numbers, each with the way to pay that carries them. */
@Service
public class SeriesSetup {
    private final EntityManager entities;
    private final BankAccounts accounts;
    private final BankAccountSetup setup;
    private final Series series;
    private final AuditTrail audit;

    SeriesSetup(
            EntityManager entities, BankAccounts accounts, BankAccountSetup setup, Series series, AuditTrail audit) {
        this.entities = entities;
        this.accounts = accounts;
        this.setup = setup;
        this.series = series;
        this.audit = audit;
    }

    /**
     * @param micr as {@link MicrPattern#read} reads it
     * @param currencyWord ends the amount in words
     * @param validity how long the checks are good for, in words; empty for nothing
     */
    public record Wanted(NumberRange range, Stock stock, String micr, String currencyWord, String validity) {}

    /** Adds a way to pay by check with its series; its numbers lie apart from those of the account's other series. */
    @Transactional
    public SeriesId add(Actor by, BankAccountId id, String wayName, Wanted wanted) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        BankAccount account = accounts.lock(id);
        Map<WayId, String> names =
                account.ways().stream().collect(java.util.stream.Collectors.toMap(WayToPay::id, WayToPay::name));
        List<NumberSeries> others = names.isEmpty() ? List.of() : series.all(names.keySet());
        others.forEach(other -> wanted.range().mustLieApartFrom(other.range(), names.get(other.way())));
        // nothing of ours prints a check that is written by hand
        MicrPattern micr = micr(wanted.stock().isPrinted() ? wanted.micr() : "C#########C|K");
        WayId way = setup.addWay(
                by,
                id,
                new BankAccountSetup.WantedWay(
                        wayName, PaymentMethod.CHECK, !wanted.stock().isPrinted()));
        NumberSeriesEntity row = new NumberSeriesEntity();
        row.wayId = way.value();
        row.prefix = wanted.range().prefix();
        row.stock = wanted.stock();
        row.firstNumber = wanted.range().first();
        row.nextNumber = wanted.range().first();
        row.lastNumber = wanted.range().last();
        row.micrPattern = micr.written();
        row.currencyWord = fitting(wanted.currencyWord(), "currencyWord", 20);
        row.validity = fitting(wanted.validity(), "validity", 80);
        entities.persist(row);
        entities.flush();
        audit.record(
                by,
                "add series",
                "bank account " + id.value(),
                Map.of(
                        "name",
                        wayName.strip(),
                        "first",
                        row.firstNumber,
                        "last",
                        row.lastNumber == null ? "" : row.lastNumber,
                        "prefix",
                        row.prefix,
                        "stock",
                        wanted.stock().words()));
        return new SeriesId(row.id);
    }

    /** Whether damaged sheets of a series may be printed again on their own numbers. */
    @Transactional
    public void allowReprint(Actor by, SeriesId id, boolean allowed) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        series.lock(series.get(id).way());
        NumberSeriesEntity row = entities.find(NumberSeriesEntity.class, id.value());
        if (allowed && row.stock != Stock.BLANK) {
            throw Refusal.conflict(
                    "numbered-stock",
                    "The numbers of this series stand on its paper already, so no sheet can carry one a second time.");
        }
        if (row.sameNumberReprint == allowed) {
            return;
        }
        row.sameNumberReprint = allowed;
        audit.record(
                by,
                "set reprints",
                "series " + id.value(),
                Map.of("same number again", allowed ? "allowed" : "not allowed"));
    }

    /** Says which paper is loaded for the checks of a series. */
    @Transactional
    public void sayLoading(Actor by, SeriesId id, String words) {
        by.mayDo(Deed.ALIGN_PRINTER);
        series.lock(series.get(id).way());
        NumberSeriesEntity row = entities.find(NumberSeriesEntity.class, id.value());
        String loading = fitting(words, "loading", 120);
        if (row.loading.equals(loading)) {
            return;
        }
        row.loading = loading;
        audit.record(by, "say what to load", "series " + id.value(), Map.of("paper", loading));
    }

    private static MicrPattern micr(String typed) {
        try {
            MicrPattern pattern = MicrPattern.read(typed.strip().toUpperCase(java.util.Locale.ROOT));
            if (typed.chars().noneMatch(c -> c == '#') || pattern.written().length() > 60) {
                throw new IllegalArgumentException("no place for the number");
            }
            return pattern;
        } catch (IllegalArgumentException none) {
            throw Refusal.invalidField(
                    "micr-pattern",
                    "micr",
                    "Write the two free fields of the MICR line with a bar between them, C for the on-us symbol, D for a dash,"
                            + " # for each digit of the check number and K for the account number, such as C########C|KC.");
        }
    }

    private static String fitting(String typed, String field, int most) {
        if (typed.strip().length() > most) {
            throw Refusal.invalidField("series-" + field, field, "At most " + most + " characters fit here.");
        }
        return typed.strip();
    }
}
