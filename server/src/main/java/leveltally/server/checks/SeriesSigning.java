package leveltally.server.checks;

import jakarta.persistence.EntityManager;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.checks.SeriesId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.pictures.Pictures;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Says who signs the checks of a series, and how large they may be. */
@Service
public class SeriesSigning {
    private final EntityManager entities;
    private final Series series;
    private final BankAccounts accounts;
    private final Pictures pictures;
    private final AuditTrail audit;

    SeriesSigning(EntityManager entities, Series series, BankAccounts accounts, Pictures pictures, AuditTrail audit) {
        this.entities = entities;
        this.series = series;
        this.accounts = accounts;
        this.pictures = pictures;
        this.audit = audit;
    }

    /**
     * @param most the largest check there may be; empty for any
     * @param secondAbove the largest amount one person signs alone; empty for any
     */
    @Transactional
    public void limit(Actor by, SeriesId id, String most, String secondAbove) {
        by.mayDo(Deed.SET_SIGNING);
        NumberSeriesEntity row = locked(id);
        Currency currency = currency(row);
        row.mostMinor = amount(most, "most", currency);
        row.secondAboveMinor = amount(secondAbove, "secondAbove", currency);
        Map<String, Object> told = new LinkedHashMap<>();
        told.put("largest", most.isBlank() ? "any" : most.strip());
        told.put("second signature above", secondAbove.isBlank() ? "never" : secondAbove.strip());
        audit.record(by, "set limits of checks", subject(id), told);
    }

    /** Signs by a picture, sealed, up to an amount. */
    @Transactional
    public void signBy(Actor by, SeriesId id, String base64, String upTo) {
        by.mayDo(Deed.SET_SIGNING);
        NumberSeriesEntity row = locked(id);
        Long limit = amount(upTo, "upTo", currency(row));
        if (limit == null) {
            throw Refusal.invalidField(
                    "signature-limit",
                    "upTo",
                    "Say up to which amount the picture signs; above it somebody signs by hand.");
        }
        if (base64.isEmpty() && row.signatureId == null) {
            throw Refusal.invalidField("picture", "content", "Choose the picture of the signature, a PNG or an SVG.");
        }
        if (!base64.isEmpty()) {
            row.signatureId = pictures.keep(by, base64, true).id();
        }
        row.signatureUpToMinor = limit;
        audit.record(by, "set signature", subject(id), Map.of("picture", "" + row.signatureId, "up to", upTo.strip()));
    }

    /** From now on every check is signed by hand. */
    @Transactional
    public void signByHand(Actor by, SeriesId id) {
        by.mayDo(Deed.SET_SIGNING);
        NumberSeriesEntity row = locked(id);
        if (row.signatureId == null) {
            return;
        }
        row.signatureId = null;
        row.signatureUpToMinor = null;
        audit.record(by, "take signature away", subject(id), Map.of());
    }

    private NumberSeriesEntity locked(SeriesId id) {
        series.lock(series.get(id).way());
        return entities.find(NumberSeriesEntity.class, id.value());
    }

    private Currency currency(NumberSeriesEntity row) {
        return accounts.list().stream()
                .filter(account ->
                        account.ways().stream().anyMatch(way -> way.id().value() == row.wayId))
                .findFirst()
                .orElseThrow()
                .currency();
    }

    private static @Nullable Long amount(String typed, String field, Currency currency) {
        if (typed.isBlank()) {
            return null;
        }
        Money amount;
        try {
            amount = Money.parse(typed.strip(), currency);
        } catch (IllegalArgumentException unreadable) {
            throw Refusal.invalidField("amount", field, "Write an amount such as 10,000.00, or leave it empty.");
        }
        if (!amount.isPositive()) {
            throw Refusal.invalidField("amount", field, "Write an amount above zero, or leave it empty.");
        }
        return amount.minor();
    }

    private static String subject(SeriesId id) {
        return "series " + id.value();
    }
}
