package leveltally.core.bankfiles;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.money.Money;

/**
 * What a field makes of a value somebody tries it with.
 *
 * @param written as it stands in the record
 * @param findings what does not fit
 */
public record FieldTry(String written, List<String> findings) {
    public FieldTry {
        findings = List.copyOf(findings);
    }

    /**
     * @param typed a text; for an amount such as {@code 1225.00}, for a day such as {@code 2026-11-13}
     * @throws Refusal when it is no value of the field's kind
     */
    public static FieldTry of(Layout layout, LayoutField field, Currency currency, String typed) {
        List<String> findings = new ArrayList<>();
        FieldPen pen = new FieldPen(field, layout.shape(), layout.charset(), findings::add);
        RecordBytes written = new RecordBytes();
        try {
            switch (field.source().form()) {
                case TEXT -> pen.text(typed, written);
                case FIGURE -> pen.figure(Long.parseLong(typed.strip()), written);
                case HASH -> pen.hash(Long.parseLong(typed.strip()), written);
                case AMOUNT -> pen.amount(Money.parse(typed.strip(), currency), written);
                case DAY -> pen.day(LocalDate.parse(typed.strip()), written);
            }
        } catch (DateTimeException | IllegalArgumentException noValue) {
            throw Refusal.invalidField(
                    "no-value",
                    "value",
                    "“" + typed + "” is no " + field.source().form().name().toLowerCase(java.util.Locale.ROOT)
                            + ". Type a number, an amount such as 1225.00, or a day such as 2026-11-13.");
        }
        return new FieldTry(written.text(layout.charset()), findings);
    }
}
