package leveltally.server.vendors;

import leveltally.server.frame.MoneyView;

/**
 * A vendor in the list of them.
 *
 * @param held why it is held; empty when it is not
 * @param count its open invoices
 * @param open what they come to in its own currency
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
        MoneyView open) {}
