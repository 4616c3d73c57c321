package leveltally.core.selection;

import leveltally.core.vendors.Reach;

/** Why the criteria looked at an invoice and did not take it; the first that applies, in this order. */
public enum LeftOutReason {
    HELD_INVOICE("held invoice", "A clerk or a controller can release the hold on the vendor's page."),
    HELD_VENDOR("held vendor", "Only a controller can release a vendor's hold, on the vendor's page."),
    IN_ANOTHER_BATCH("in another batch", "Whoever works on that batch can take it out there."),
    OTHER_CURRENCY("other currency", "Choose a bank account of that currency."),
    OTHER_METHOD("other method", "Choose a bank account that pays that way."),
    NO_ADDRESS("no address", "Propose an address on the vendor's page; a second person confirms it."),
    NO_BANK_DETAILS("no bank details", "Propose bank details on the vendor's page; a second person confirms them."),
    BANK_DETAILS_NOT_CONFIRMED("bank details not confirmed", "A second person confirms them, on the vendor's page."),
    NOT_SET_UP_FOR_ACH(
            "not set up for ACH",
            "Its account is an IBAN. Propose a routing number with an account number on the vendor's page, or pay it by credit"
                    + " transfer."),
    DATED_AFTER_CHECK_DATE("dated after the check date", "Choose a later check date."),
    ENTERED_LATER("entered later", "Choose a ledger date from that day on."),
    NOT_USABLE_YET("not usable yet", "It can be used from that day on."),
    COVERED_BY_CREDITS("covered by credits", "Settle it by the offset proposed, without a payment."),
    UNDER_SMALLEST_PAYMENT("under the smallest payment", "Take it in by hand, or lower the smallest payment."),
    BEYOND_THE_CASH_LINE("beyond the cash line", "Take it in by hand, or raise the limit."),
    TAKEN_OUT_BY_HAND("taken out by hand", "Take it in again.");

    private final String words;
    private final String wayOut;

    LeftOutReason(String words, String wayOut) {
        this.words = words;
        this.wayOut = wayOut;
    }

    /** The reason for what a payee lacks. */
    public static LeftOutReason of(Reach.Missing missing) {
        return switch (missing) {
            case ADDRESS -> NO_ADDRESS;
            case BANK_DETAILS -> NO_BANK_DETAILS;
            case CONFIRMATION -> BANK_DETAILS_NOT_CONFIRMED;
            case ROUTING_NUMBER -> NOT_SET_UP_FOR_ACH;
        };
    }

    public String words() {
        return words;
    }

    /** Who can change that, and where. */
    public String wayOut() {
        return wayOut;
    }

    /** True when taking it in by hand is enough. */
    public boolean movable() {
        return this == UNDER_SMALLEST_PAYMENT || this == BEYOND_THE_CASH_LINE || this == TAKEN_OUT_BY_HAND;
    }
}
