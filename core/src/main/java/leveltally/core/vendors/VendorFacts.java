package leveltally.core.vendors;

import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.terms.Terms;

/**
 * What is kept of a vendor and changed by one person. Whom a payment names, and where it goes, is its remit-to's and takes two.
 *
 * @param priority 1 is paid first, 9 last
 * @param method the way it prefers
 * @param alsoBy by what else it may be paid, where somebody says so; never the way it prefers
 */
public record VendorFacts(
        String name,
        String group,
        int priority,
        PaymentMethod method,
        Terms terms,
        Paperwork paperwork,
        Reportable reportable,
        Set<PaymentMethod> alsoBy) {
    private static final Pattern NUMBER = Pattern.compile("[A-Za-z0-9._/-]{1,12}");

    /** Of a vendor that is paid its own way only. */
    public VendorFacts(
            String name,
            String group,
            int priority,
            PaymentMethod method,
            Terms terms,
            Paperwork paperwork,
            Reportable reportable) {
        this(name, group, priority, method, terms, paperwork, reportable, Set.of());
    }

    /** @throws Refusal naming the field that cannot be so */
    public VendorFacts {
        name = name.strip();
        PaymentMethod preferred = method;
        alsoBy = alsoBy.stream().filter(one -> one != preferred).collect(Collectors.toUnmodifiableSet());
        group = group.strip().isEmpty() ? "Other" : group.strip();
        refuseUnless(!name.isEmpty() && name.length() <= 120, "name", "Name the vendor, in at most 120 characters.");
        refuseUnless(group.length() <= 40, "group", "A group has at most 40 characters.");
        refuseUnless(priority >= 1 && priority <= 9, "priority", "A priority lies between 1, paid first, and 9.");
    }

    /** A vendor's number as it is kept. */
    public static String number(String typed) {
        String number = typed.strip();
        refuseUnless(
                NUMBER.matcher(number).matches(),
                "number",
                "A vendor's number has 1 to 12 letters, digits, dots, hyphens or slashes.");
        return number;
    }

    private static void refuseUnless(boolean right, String field, String sentence) {
        if (!right) {
            throw Refusal.invalidField("vendor-" + field, field, sentence);
        }
    }
}
