package leveltally.practicebank;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Files in which the bank sends ACH entries back, or corrects them. */
final class ReturnPaper {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("yyMMdd");
    private static final int WIDTH = 94;
    private static final int BLOCK = 10;

    private ReturnPaper() {}

    /** @param right what is right instead; empty where the entry comes back */
    record Notice(String code, PaidEntry entry, String right) {}

    static byte[] written(LocalDate day, List<Notice> notices) {
        List<String> records = new ArrayList<>();
        String date = day.format(DAY);
        records.add(filled(
                "101 000000000 000000000" + date + "0700A094101" + text("THE COMPANY", 23) + text("THE BANK", 23)));
        String odfi = notices.get(0).entry().trace().substring(0, 8);
        records.add(filled("5220" + text("THE COMPANY", 16) + text("", 20) + "          CCD" + text("RETURNS", 10)
                + date + date + "   1" + odfi + "0000001"));
        long hash = 0;
        long cents = 0;
        int at = 0;
        for (Notice one : notices) {
            PaidEntry entry = one.entry();
            boolean back = one.right().isEmpty();
            long minor = back ? entry.minor() : 0;
            String trace = entry.bank().substring(0, 8) + "%07d".formatted(++at);
            records.add(filled("6" + (entry.savings() ? "31" : "21") + entry.bank() + text(entry.account(), 17)
                    + "%010d".formatted(minor) + text(entry.id(), 15) + text(entry.payee(), 22) + "  1" + trace));
            records.add(filled("7" + (back ? "99" : "98") + one.code() + entry.trace() + "      "
                    + entry.bank().substring(0, 8) + text(one.right(), 44) + trace));
            hash += Long.parseLong(entry.bank().substring(0, 8));
            cents += minor;
        }
        int count = notices.size() * 2;
        String sums = "%010d%012d%012d".formatted(hash % 10_000_000_000L, 0, cents);
        records.add(filled("8220%06d".formatted(count) + sums + text("", 35) + odfi + "0000001"));
        int blocks = (records.size() + BLOCK) / BLOCK;
        records.add(filled("9000001%06d%08d".formatted(blocks, count) + sums));
        while (records.size() < blocks * BLOCK) {
            records.add("9".repeat(WIDTH));
        }
        return (String.join("\r\n", records) + "\r\n").getBytes(StandardCharsets.US_ASCII);
    }

    private static String text(String text, int width) {
        return String.format(Locale.ROOT, "%-" + width + "s", text.substring(0, Math.min(width, text.length())));
    }

    private static String filled(String record) {
        return text(record, WIDTH);
    }
}
