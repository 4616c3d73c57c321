package leveltally.server.vendors;

import java.util.List;
import leveltally.server.frame.MoneyView;

/**
 * A vendor in the list of them.
 *
 * @param held why it is held; empty when it is not
 * @param count its open invoices
 * @param open what they come to, in its usual currency and in whatever others it is owed
 */
record ListedVendor(
        long id,
        String number,
        String name,
        String group,
        int priority,
        String method,
        String held,
        int count,
        List<MoneyView> open) {}
