package leveltally.practicebank;

import java.math.BigDecimal;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Reads the files of one company, record by record, and adds up for itself what they say of themselves. */
final class FileDesk {
    private final Specification by;
    private final String accountNumber;
    private final int decimals;

    /** What the details read so far came to, and what header and trailer claim. */
    private final Map<String, BigDecimal> counted = new HashMap<>();

    private final Map<String, String> claims = new HashMap<>();
    private final Map<String, Integer> widths = new HashMap<>();

    /** @param decimals of the account's currency */
    FileDesk(Specification by, String accountNumber, int decimals) {
        this.by = by;
        this.accountNumber = accountNumber;
        this.decimals = decimals;
    }

    List<ToldCheck> read(byte[] content) throws Unreadable {
        List<List<String>> lines = new ArrayList<>();
        for (String line : records(text(content))) {
            lines.add(by.separator() == 0 ? List.of(line) : cells(line));
        }
        if (lines.isEmpty()) {
            throw new Unreadable("The file is empty");
        }
        List<Specification.Kind> heads = at("HEADER");
        List<Specification.Kind> ends = at("TRAILER");
        int last = lines.size() - ends.size();
        if (last < heads.size()) {
            throw new Unreadable("The file ends before its trailer");
        }
        for (int i = 0; i < heads.size(); i++) {
            claim(whole(lines.get(i), heads.get(i), i), heads.get(i));
        }
        List<ToldCheck> told = details(lines.subList(heads.size(), last), heads.size());
        for (int i = 0; i < ends.size(); i++) {
            claim(whole(lines.get(last + i), ends.get(i), last + i), ends.get(i));
        }
        counted.put("RECORD_COUNT", BigDecimal.valueOf(lines.size()));
        compare();
        return told;
    }

    private List<Specification.Kind> at(String place) {
        return by.kinds().stream().filter(kind -> kind.place().equals(place)).toList();
    }

    private String text(byte[] content) throws Unreadable {
        try {
            String text =
                    by.charset().newDecoder().decode(ByteBuffer.wrap(content)).toString();
            return text.startsWith("\uFEFF") ? text.substring(1) : text;
        } catch (CharacterCodingException wrong) {
            throw new Unreadable("The file is not in " + by.charset().name());
        }
    }

    private List<String> records(String text) {
        if (by.between()) {
            return text.lines().filter(line -> !line.isEmpty()).toList();
        }
        int length = by.kinds().get(0).width();
        List<String> blocks = new ArrayList<>();
        for (int at = 0; at < text.length(); at += length) {
            blocks.add(text.substring(at, Math.min(text.length(), at + length)));
        }
        return blocks;
    }

    /** A line between separators, character by character. */
    private List<String> cells(String line) {
        List<String> cells = new ArrayList<>();
        StringBuilder cell = new StringBuilder();
        boolean within = false;
        boolean begun = false;
        for (int i = 0; i < line.length(); i++) {
            char c = line.charAt(i);
            boolean followed = i + 1 < line.length();
            if (c == '\\' && by.escape().equals("BACKSLASH") && followed) {
                cell.append(line.charAt(++i));
                begun = true;
            } else if (c == by.quote()
                    && within
                    && by.escape().equals("DOUBLED")
                    && followed
                    && line.charAt(i + 1) == c) {
                cell.append(c);
                i++;
            } else if (c == by.quote() && (within || !begun)) {
                within = !within;
                begun = true;
            } else if (c == by.separator() && !within) {
                cells.add(cell.toString());
                cell.setLength(0);
                begun = false;
            } else {
                cell.append(c);
                begun = true;
            }
        }
        cells.add(cell.toString());
        return cells;
    }

    /** What stands in each field of a line of this kind; null where it is none. */
    private @Nullable List<String> fields(List<String> line, Specification.Kind kind) {
        List<String> fields = line;
        if (by.separator() == 0) {
            String text = line.get(0);
            if (text.length() > kind.width()) {
                return null;
            }
            String padded = text + " ".repeat(kind.width() - text.length());
            fields = new ArrayList<>();
            int at = 0;
            for (Specification.Part part : kind.parts()) {
                fields.add(padded.substring(at, at + part.width()));
                at += part.width();
            }
        } else if (fields.size() != kind.parts().size()) {
            return null;
        }
        for (int i = 0; i < fields.size(); i++) {
            Specification.Part part = kind.parts().get(i);
            if (part.source().equals("CONSTANT")
                    && !fields.get(i).strip().equals(part.value().strip())) {
                return null;
            }
        }
        return fields;
    }

    private List<String> whole(List<String> line, Specification.Kind kind, int at) throws Unreadable {
        List<String> fields = fields(line, kind);
        if (fields == null) {
            throw new Unreadable("Record " + (at + 1) + " is not the "
                    + kind.place().toLowerCase(Locale.ROOT) + " that was agreed on");
        }
        return fields;
    }

    private void claim(List<String> fields, Specification.Kind kind) throws Unreadable {
        for (int i = 0; i < fields.size(); i++) {
            Specification.Part part = kind.parts().get(i);
            claims.put(part.source(), bare(part, fields.get(i)));
            widths.put(part.source(), part.width());
            account(part, fields.get(i));
        }
    }

    private void account(Specification.Part part, String stands) throws Unreadable {
        if (part.source().equals("ACCOUNT_NUMBER") && !digits(stands).equals(digits(accountNumber))) {
            throw new Unreadable("The file is of another account");
        }
    }

    private static String digits(String number) {
        return number.replaceAll("\\D", "").replaceFirst("^0+", "");
    }

    /** Lines of one check follow each other in the order of their kinds. */
    private List<ToldCheck> details(List<List<String>> lines, int before) throws Unreadable {
        List<Specification.Kind> kinds = at("DETAIL");
        List<ToldCheck> told = new ArrayList<>();
        Map<String, String> one = new HashMap<>();
        int reached = -1;
        for (int at = 0; at < lines.size(); at++) {
            int kind = kind(lines.get(at), kinds, reached);
            if (kind < 0) {
                throw new Unreadable("Record " + (before + at + 1) + " is none that was agreed on");
            }
            if (kind <= reached || !one.isEmpty() && apart(kinds.get(kind), one)) {
                told.add(check(one, told.size() + 1));
                one = new HashMap<>();
            }
            reached = kind;
            take(lines.get(at), kinds.get(kind), one);
        }
        if (!one.isEmpty()) {
            told.add(check(one, told.size() + 1));
        }
        return told;
    }

    private static boolean apart(Specification.Kind next, Map<String, String> one) {
        return next.tells().equals("VOIDS") && "ISSUE".equals(one.get("KIND"));
    }

    private int kind(List<String> line, List<Specification.Kind> kinds, int reached) {
        for (int step = 1; step <= kinds.size(); step++) {
            int kind = (reached + step) % kinds.size();
            if (fields(line, kinds.get(kind)) != null) {
                return kind;
            }
        }
        return -1;
    }

    private void take(List<String> line, Specification.Kind kind, Map<String, String> one) throws Unreadable {
        List<String> fields = java.util.Objects.requireNonNull(fields(line, kind));
        if (!kind.tells().equals("BOTH")) {
            one.put("KIND", kind.tells().equals("ISSUES") ? "ISSUE" : "VOID");
        }
        for (int i = 0; i < fields.size(); i++) {
            Specification.Part part = kind.parts().get(i);
            String means = means(part, bare(part, fields.get(i)));
            switch (part.source()) {
                case "AMOUNT" -> one.put(part.source(), String.valueOf(minor(part, fields.get(i))));
                case "CHECK_DATE", "EVENT_DATE" -> one.put(part.source(), day(part, means));
                case "PAYEE_GOES_ON" -> one.merge("PAYEE", means, (first, more) -> (first + " " + more).strip());
                default -> one.put(part.source(), means);
            }
            account(part, fields.get(i));
        }
    }

    private ToldCheck check(Map<String, String> one, int row) throws Unreadable {
        String kind = one.getOrDefault("KIND", "").toUpperCase(Locale.ROOT);
        if (!kind.equals("ISSUE") && !kind.equals("VOID")) {
            throw new Unreadable("Check " + row + " of the file is neither issued nor voided");
        }
        String number = digits(one.getOrDefault("NUMBER", one.getOrDefault("NUMBER_AS_PRINTED", "")));
        if (number.isEmpty() || number.length() > 18) {
            throw new Unreadable("Check " + row + " of the file has no number");
        }
        String amount = one.get("AMOUNT");
        ToldCheck check = new ToldCheck(
                kind.equals("ISSUE"),
                Long.parseLong(number),
                amount == null ? null : Long.valueOf(amount),
                one.getOrDefault("EVENT_DATE", one.getOrDefault("CHECK_DATE", "")),
                one.getOrDefault("PAYEE", ""));
        count("", check);
        count(check.issued() ? "ISSUE_" : "VOID_", check);
        return check;
    }

    private void count(String which, ToldCheck check) {
        counted.merge(which + "COUNT", BigDecimal.ONE, BigDecimal::add);
        counted.merge(which + "HASH", BigDecimal.valueOf(check.number()), BigDecimal::add);
        counted.merge(which + "TOTAL", BigDecimal.valueOf(check.minor() == null ? 0 : check.minor()), BigDecimal::add);
    }

    private void compare() throws Unreadable {
        for (Specification.Kind kind : by.kinds()) {
            for (Specification.Part part : kind.parts()) {
                String source = part.source();
                if (kind.place().equals("DETAIL") || !source.matches("(.*_)?(COUNT|TOTAL|HASH)")) {
                    continue;
                }
                String claim = claims.getOrDefault(source, "");
                BigDecimal found = counted.getOrDefault(source, BigDecimal.ZERO);
                BigDecimal said = source.endsWith("TOTAL")
                        ? BigDecimal.valueOf(minor(part, claim))
                        : new BigDecimal(claim.isEmpty() ? "0" : claim);
                if (source.endsWith("HASH")) {
                    int width = widths.getOrDefault(source, 0);
                    found = width == 0 ? found : found.remainder(BigDecimal.TEN.pow(width));
                }
                if (said.compareTo(found) != 0) {
                    throw new Unreadable("The file says of " + part.name() + " " + claim + ", its records come to "
                            + found.toPlainString());
                }
            }
        }
    }

    /** Without what fills it up. */
    private static String bare(Specification.Part part, String stands) {
        String text = stands;
        String fill = String.valueOf(part.fill());
        while (text.length() > 1 && (part.right() ? text.startsWith(fill) : text.endsWith(fill))) {
            text = part.right() ? text.substring(1) : text.substring(0, text.length() - 1);
        }
        return text.strip();
    }

    private static String means(Specification.Part part, String stands) {
        String meant = part.meant().get(stands);
        if (meant != null) {
            return meant;
        }
        boolean other = part.source().equals("KIND") && !part.others().isEmpty() && stands.equals(part.others());
        return !other ? stands : part.meant().containsValue("VOID") ? "ISSUE" : "VOID";
    }

    private String day(Specification.Part part, String stands) throws Unreadable {
        try {
            return LocalDate.parse(stands, DateTimeFormatter.ofPattern(part.value(), Locale.ROOT))
                    .toString();
        } catch (DateTimeException noDay) {
            throw new Unreadable("“" + stands + "” in " + part.name() + " is no day");
        }
    }

    private long minor(Specification.Part part, String stands) throws Unreadable {
        boolean below = stands.contains("-");
        String plain = stands.replace("+", "").replace("-", "").strip();
        String digits = plain.replace(part.decimals().equals("COMMA") ? "," : ".", "");
        try {
            int mark = plain.indexOf(part.decimals().equals("COMMA") ? ',' : '.');
            BigDecimal figure = new BigDecimal(digits.isEmpty() ? "0" : digits);
            int shift = part.decimals().equals("IMPLIED") || mark < 0 ? 0 : plain.length() - mark - 1;
            long minor = part.decimals().equals("IMPLIED")
                    ? figure.longValueExact()
                    : figure.movePointLeft(shift).movePointRight(decimals).longValueExact();
            return below ? -minor : minor;
        } catch (ArithmeticException | NumberFormatException noAmount) {
            throw new Unreadable("“" + stands + "” in " + part.name() + " is no amount");
        }
    }
}
