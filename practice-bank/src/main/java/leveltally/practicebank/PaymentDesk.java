package leveltally.practicebank;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.Predicate;

/** Pays what files order, and sends some of it back a day or two later. */
final class PaymentDesk {
    private static final int OF_A_HUNDRED = 100;
    private static final int COMING_BACK = 4;
    private static final int WITHIN = 2;
    private static final List<String> RETURNS = List.of("R02", "R03", "R04", "R16");
    private static final List<String> REFUSALS = List.of("AC04", "AC03", "AC06", "MS03");

    private final Books books;
    private final LocalDate day;
    private final Map<String, byte[]> papers;
    private final List<String> did;

    PaymentDesk(Books books, LocalDate day, Map<String, byte[]> papers, List<String> did) {
        this.books = books;
        this.day = day;
        this.papers = papers;
        this.did = did;
    }

    private static boolean isAch(byte[] content) {
        return content.length > 3 && new String(content, 0, 3, StandardCharsets.US_ASCII).equals("101");
    }

    private static boolean isXml(byte[] content) {
        return content.length > 1 && content[0] == '<';
    }

    /** Whether a file orders payments. */
    static boolean takes(byte[] content) {
        return isAch(content) || isXml(content);
    }

    /**
     * Takes a file of payments; what it says of one of transfers stands in a status report.
     *
     * @param refuses whether all of it is refused, {@code refusesOne} whether its first payment is
     * @return why it is not taken; empty when it is
     */
    Optional<String> take(String name, byte[] content, boolean refuses, boolean refusesOne) {
        if (isAch(content)) {
            if (refuses) {
                return Optional.of("Damaged on its way, please send it again");
            }
            try {
                List<PaidEntry> entries = AchDesk.read(content);
                entries.forEach(entry -> keep(entry, ""));
                did.add("Took " + name + " with " + counted(entries) + ".");
                return Optional.empty();
            } catch (Unreadable unreadable) {
                return Optional.of(unreadable.sentence());
            }
        }
        TransferDesk desk = new TransferDesk(content);
        try {
            desk.read();
        } catch (Unreadable unreadable) {
            report(desk.message(), "RJCT", "FF01", List.of());
            return Optional.of(unreadable.sentence());
        }
        if (refuses) {
            report(desk.message(), "RJCT", "MS03", List.of());
            return Optional.of("Not taken, the bank does not say why");
        }
        List<PaidEntry> paid = desk.entries();
        List<PaidEntry> refused = refusesOne && !paid.isEmpty() ? paid.subList(0, 1) : List.of();
        paid.subList(refused.size(), paid.size()).forEach(entry -> keep(entry, desk.message()));
        report(
                desk.message(),
                refused.isEmpty() ? "ACCP" : "PART",
                "",
                refused.stream()
                        .map(entry -> new StatusPaper.Refused(entry.id(), "AC04"))
                        .toList());
        did.add("Took " + name + " with " + counted(paid.subList(refused.size(), paid.size()))
                + (refused.isEmpty() ? "." : ", refused 1 of them."));
        return Optional.empty();
    }

    private static String counted(List<PaidEntry> entries) {
        boolean asks = !entries.isEmpty() && entries.stream().allMatch(entry -> entry.minor() == 0);
        String what = asks ? " account to look for" : " payment";
        return entries.size() + (entries.size() == 1 ? what : what.replaceFirst("account|payment", "$0s"));
    }

    private void report(String message, String status, String reason, List<StatusPaper.Refused> refused) {
        papers.put(
                "status-" + message + "-" + day + ".xml", StatusPaper.written(message, day, status, reason, refused));
    }

    private void keep(PaidEntry entry, String message) {
        Books.Entry kept = new Books.Entry();
        kept.entry = entry;
        kept.message = message;
        books.entries.add(kept);
    }

    /** Pays what is to be paid by this day, and sends back what comes back on it. */
    void payAndSendBack(boolean sendsOneBack, boolean correctsOne) {
        for (Books.Entry one : books.entries) {
            if (one.paid == 0 && !one.entry.paysOn().isAfter(day)) {
                one.paid = books.days;
                one.back = comesBack(one);
                move(-one.entry.minor(), one.entry.id() + " " + one.entry.payee());
            }
        }
        if (sendsOneBack) {
            newest(one -> one.paid > 0 && !one.gone).ifPresent(one -> one.back = books.days);
        }
        List<Books.Entry> back = books.entries.stream()
                .filter(one -> one.paid > 0 && one.back > 0 && one.back <= books.days && !one.gone)
                .toList();
        for (Books.Entry one : back) {
            one.gone = true;
            move(one.entry.minor(), one.entry.id() + " returned");
            did.add("Sent " + one.entry.id() + " back.");
        }
        List<ReturnPaper.Notice> notices = new ArrayList<>();
        back.stream()
                .filter(one -> one.message.isEmpty())
                .map(one -> new ReturnPaper.Notice(pick(RETURNS, one), one.entry, ""))
                .forEach(notices::add);
        if (correctsOne) {
            newest(one -> one.message.isEmpty() && one.paid > 0 && !one.gone).ifPresent(one -> {
                String right = one.entry.account() + "7";
                notices.add(new ReturnPaper.Notice("C01", one.entry, right));
                did.add("Corrected the account of " + one.entry.id() + ".");
            });
        }
        if (!notices.isEmpty()) {
            papers.put("returns-" + day + ".ach", ReturnPaper.written(day, notices));
        }
        back.stream()
                .filter(one -> !one.message.isEmpty())
                .forEach(one -> papers.put(
                        "status-" + one.entry.id() + "-" + day + ".xml",
                        StatusPaper.written(
                                one.message,
                                day,
                                "PART",
                                "",
                                List.of(new StatusPaper.Refused(one.entry.id(), pick(REFUSALS, one))))));
    }

    private Optional<Books.Entry> newest(Predicate<Books.Entry> which) {
        return books.entries.stream().filter(which).max(Comparator.comparing(one -> one.entry.trace()));
    }

    /** On which day, counted from the first, it comes back; 0 for never. */
    private int comesBack(Books.Entry one) {
        Random random = seeded(one);
        return random.nextInt(OF_A_HUNDRED) < COMING_BACK ? books.days + 1 + random.nextInt(WITHIN) : 0;
    }

    private static String pick(List<String> codes, Books.Entry one) {
        return codes.get(seeded(one).nextInt(codes.size()));
    }

    private static Random seeded(Books.Entry one) {
        return new Random((one.entry.id() + one.entry.account()).hashCode() * 7_919L);
    }

    /** Nothing moves where a file only asked whether an account is there. */
    private void move(long minor, String text) {
        if (minor == 0) {
            return;
        }
        books.moved.add(new Agreement.Moved(day, 0, minor, text));
    }
}
