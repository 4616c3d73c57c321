package leveltally.core.electronic;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.electronic.FiledPayment.Document;

/**
 * What addenda say of the documents an entry pays, in the segments of ANSI ASC X12: one addendum of them with CCD and PPD, a
 * payment order and remittance advice (transaction set 820) over as many addenda as it takes with CTX.
 */
public final class AchRemittance {
    private static final String END = "\\";
    private static final DateTimeFormatter DAY = DateTimeFormatter.BASIC_ISO_DATE;

    private AchRemittance() {}

    /** One addendum: all documents, or what they are too many for. */
    public static List<String> inOne(List<Document> lines, String advice) {
        StringBuilder all = new StringBuilder();
        for (Document line : lines) {
            all.append(segment(line, false));
            if (all.length() > AchEntry.ADDENDUM) {
                return List.of("NTE*ADD*" + lines.size() + " DOCUMENTS, SEE ADVICE " + element(advice) + END);
            }
        }
        return lines.isEmpty() ? List.of() : List.of(all.toString());
    }

    /** The transaction set, cut into addenda. */
    public static List<String> inMany(AchSender sender, FiledPayment of, LocalDate effective) {
        List<String> segments = new ArrayList<>();
        segments.add(segment("ST", "820", "0001"));
        segments.add(segment(
                "BPR",
                "C",
                of.amount().plain(),
                "C",
                "ACH",
                "CTX",
                "01",
                sender.odfi().digits(),
                "DA",
                sender.offset() == null ? "" : sender.offset(),
                sender.companyId(),
                "",
                "01",
                of.account().routing(),
                of.account().savings() ? "SG" : "DA",
                of.account().account(),
                effective.format(DAY)));
        segments.add(segment("TRN", "1", of.called()));
        segments.add(segment("ENT", "1"));
        for (Document line : of.documents()) {
            segments.add(segment(line, true));
        }
        segments.add(segment("SE", String.valueOf(segments.size() + 1), "0001"));
        String all = String.join("", segments);
        List<String> addenda = new ArrayList<>();
        for (int from = 0; from < all.length(); from += AchEntry.ADDENDUM) {
            addenda.add(all.substring(from, Math.min(all.length(), from + AchEntry.ADDENDUM)));
        }
        return addenda;
    }

    private static String segment(Document line, boolean amounts) {
        String sign = line.credit() ? "-" : "";
        String kind = line.credit() ? "CM" : "IV";
        String paid = sign + line.paid().plain();
        return amounts
                ? segment(
                        "RMR",
                        kind,
                        element(line.reference()),
                        "",
                        paid,
                        sign + line.gross().plain(),
                        line.discount().isZero() ? "" : line.discount().plain())
                : segment("RMR", kind, element(line.reference()), "", paid);
    }

    /** Empty elements at the end are left out, as the standard has it. */
    private static String segment(String... elements) {
        return String.join("*", elements).replaceAll("\\*+$", "") + END;
    }

    /** What parts elements and segments cannot stand within one. */
    private static String element(String text) {
        return PlainText.ACH.of(text).strip().replaceAll("[*\\\\~]", ".");
    }
}
