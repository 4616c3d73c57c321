package leveltally.server.ledger;

import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.PlannedRuns;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * A bank account as other capabilities see it: cash, and the ways it pays; the account number is unsealed and never leaves the server whole.
 *
 * @param floor the cash the company keeps on it
 * @param closedOn the day it was closed on; nothing is paid from it any more
 * @param ways the ways it pays, the usual one first
 * @param smallest no payment below it is made where nothing else is asked for; zero for any
 * @param thisRun the check date of the batches made last; {@code nextRun} the one planned after it
 */
public record BankAccount(
        BankAccountId id,
        String name,
        String bankName,
        Currency currency,
        String routingNumber,
        String accountNumber,
        AccountId cash,
        boolean positivePay,
        @Nullable LayoutInForce layout,
        Money floor,
        Money smallest,
        @Nullable LocalDate thisRun,
        @Nullable LocalDate nextRun,
        @Nullable LocalDate closedOn,
        List<WayToPay> ways) {

    /** @throws Refusal when it is closed */
    public void mustBeOpen() {
        if (closedOn != null) {
            throw Refusal.conflict(
                    "account-closed",
                    name + " was closed on " + Dates.inWords(closedOn) + ". Choose another bank account.");
        }
    }

    /**
     * The way asked for, or the account's first where none is.
     *
     * @throws Refusal when the account does not pay that way
     */
    public WayToPay way(@Nullable WayId wanted) {
        return ways.stream()
                .filter(way -> wanted == null || way.id().equals(wanted))
                .findFirst()
                .orElseThrow(() -> Refusal.invalidField(
                        "no-way",
                        "wayToPay",
                        name + " does not pay that way. Choose one of its own ways to pay, or another account."));
    }

    /**
     * The way asked for, or the first by which payments are made here.
     *
     * @throws Refusal when the account does not pay that way, or what is paid so is only recorded
     */
    public WayToPay payingWay(@Nullable WayId wanted) {
        WayToPay way =
                wanted != null ? way(wanted) : payingWays().stream().findFirst().orElseGet(() -> way(null));
        if (way.recordedOnly()) {
            throw Refusal.invalidField(
                    "recorded-only",
                    "wayToPay",
                    "What is paid by “" + way.name()
                            + "” is paid elsewhere and recorded here afterwards. Choose a way whose"
                            + " payments are made here, or record them under Payments made elsewhere.");
        }
        return way;
    }

    /** The ways by which payments are made here, the usual one first. */
    public List<WayToPay> payingWays() {
        return ways.stream().filter(one -> !one.recordedOnly()).toList();
    }

    /** What payments of one of its ways credit: its cash, or what is owed to the issuer of a card. */
    public AccountId paidFrom(WayId way) {
        WayToPay.Card card = way(way).card();
        return card == null ? cash : card.owed();
    }

    /** The runs planned for it. */
    public PlannedRuns runs() {
        return new PlannedRuns(thisRun, nextRun);
    }
}
