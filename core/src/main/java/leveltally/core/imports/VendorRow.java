package leveltally.core.imports;

import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import org.jspecify.annotations.Nullable;

/** A vendor as a file has it. */
public record VendorRow(
        String number,
        String name,
        String group,
        int priority,
        PaymentMethod method,
        Currency currency,
        Terms terms,
        RemitTo remitTo,
        String postalCode) {

    /** A row, or why it is none. */
    public record Read(@Nullable VendorRow row, List<Finding> findings) {}

    public String identity() {
        return "vendor " + number.toLowerCase(Locale.ROOT);
    }

    /** @param currencies those of the company's bank accounts, by which anything can be paid */
    public static Read read(Map<String, String> cells, Set<Currency> currencies) {
        Cells in = new Cells(cells);
        String number = in.text("number", 12, true);
        if (!number.isEmpty() && !number.matches("[A-Za-z0-9._/-]*")) {
            in.wrong("number", "may have letters, digits, dots, hyphens and slashes only");
        }
        String name = in.text("name", 120, true);
        String group = in.text("group", 40, false);
        int priority = in.read("priority", VendorRow::priority).orElse(5);
        PaymentMethod method = method(in);
        Currency currency =
                in.read("currency", text -> currency(text, currencies)).orElse(null);
        Terms terms = in.read("terms", Terms::read).orElse(null);
        String address = in.text("address", 300, true);
        List<String> lines = Stream.of(address.split(";"))
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .toList();
        if (!address.isEmpty() && (lines.isEmpty() || lines.size() > 5)) {
            in.wrong("address", "needs one to five lines, separated by semicolons");
        }
        String postal = in.text("postal_code", 20, false);
        if (!in.findings().isEmpty()) {
            return new Read(null, in.findings());
        }
        return new Read(
                new VendorRow(
                        number,
                        name,
                        group.isEmpty() ? "Other" : group,
                        priority,
                        method,
                        currency,
                        terms,
                        new RemitTo(name, lines),
                        postal),
                List.of());
    }

    private static int priority(String text) {
        if (text.isEmpty()) {
            return 5;
        }
        if (!text.matches("[1-9]")) {
            throw new IllegalArgumentException("“" + text + "” is no priority from 1 to 9");
        }
        return Integer.parseInt(text);
    }

    private static PaymentMethod method(Cells in) {
        List<PaymentMethod> all = List.of(PaymentMethod.values());
        String words = in.oneOf("method", all.stream().map(PaymentMethod::words).toList());
        return all.stream().filter(one -> one.words().equals(words)).findFirst().orElseThrow();
    }

    private static Currency currency(String text, Set<Currency> currencies) {
        return currencies.stream()
                .filter(one -> one.getCurrencyCode().equalsIgnoreCase(text))
                .findFirst()
                .orElseThrow(() ->
                        new IllegalArgumentException("“" + (text.length() > 10 ? text.substring(0, 10) + "…" : text)
                                + "” is the currency of none of our bank accounts ("
                                + currencies.stream()
                                        .map(Currency::getCurrencyCode)
                                        .sorted()
                                        .collect(Collectors.joining(", "))
                                + "), so nothing could be paid in it"));
    }
}
