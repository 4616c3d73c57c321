package leveltally.core.bankfiles;

import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import leveltally.core.Refusal;

/**
 * How a bank wants its files named: text with {@code {account}}, {@code {date:yyyyMMdd}} and {@code {serial}} or
 * {@code {serial:6}}, which is filled with zeros.
 */
public final class FileName {
    private static final Pattern PART = Pattern.compile("\\{(account|date|serial)(?::([^{}]*))?}");
    private static final Pattern PLAIN = Pattern.compile("[A-Za-z0-9._-]{1,80}");
    private static final int MOST_DIGITS = 12;

    private FileName() {}

    /** @throws Refusal where the pattern makes no name a file can have everywhere */
    public static String of(String pattern, BankFile.About about) {
        StringBuilder name = new StringBuilder();
        Matcher part = PART.matcher(pattern);
        while (part.find()) {
            part.appendReplacement(name, Matcher.quoteReplacement(said(part.group(1), part.group(2), about)));
        }
        part.appendTail(name);
        if (about.test()) {
            name.insert(0, "TEST-");
        }
        if (!PLAIN.matcher(name).matches()) {
            throw refused("“" + name + "” is no name for a file. Use letters, digits, points and dashes, and {account},"
                    + " {date:yyyyMMdd} and {serial:6}.");
        }
        return name.toString();
    }

    private static String said(String what, @org.jspecify.annotations.Nullable String how, BankFile.About about) {
        try {
            return switch (what) {
                case "account" -> about.accountNumber();
                case "date" ->
                    about.fileDate().format(DateTimeFormatter.ofPattern(how == null ? "yyyyMMdd" : how, Locale.ROOT));
                default -> {
                    int digits = how == null ? 1 : Integer.parseInt(how);
                    if (digits < 1 || digits > MOST_DIGITS) {
                        throw new IllegalArgumentException(how);
                    }
                    yield String.format(Locale.ROOT, "%0" + digits + "d", about.serial());
                }
            };
        } catch (IllegalArgumentException unreadable) {
            throw refused("“" + how + "” says nothing about the " + what + ". Write {date:yyyyMMdd} or {serial:6}.");
        }
    }

    private static Refusal refused(String sentence) {
        return Refusal.invalidField("file-name", "fileName", sentence);
    }
}
