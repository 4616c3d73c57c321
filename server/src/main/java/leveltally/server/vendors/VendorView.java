package leveltally.server.vendors;

import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/** Everything about one vendor but its account. */
record VendorView(
        long id,
        String number,
        String name,
        String group,
        int priority,
        String method,
        String currency,
        String terms,
        String held,
        boolean oneTime,
        List<AddressView> addresses,
        List<MoneyView> open,
        List<MoneyView> credits,
        List<MoneyView> paidAhead,
        List<MoneyView> reserved,
        List<PaidYear> paid,
        List<OffsetView> offsets,
        @Nullable MergedInto mergedInto) {
    /** {@code bank} is the masked end of the bank details, empty where there are none. */
    record AddressView(long id, String payee, List<String> lines, String postalCode, String bank, boolean inForce) {}

    /** @param changedLater payments of that year undone in a later one; the total stays as it was reported */
    record PaidYear(int year, int count, MoneyView amount, int changedLater) {}

    record OffsetView(long id, String reference, LocalDate date, MoneyView amount, boolean undone) {}

    /** The vendor that another became. */
    record MergedInto(long id, String number, String name) {}
}
