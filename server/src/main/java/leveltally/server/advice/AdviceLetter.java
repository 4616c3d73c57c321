package leveltally.server.advice;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.Dates;
import leveltally.core.company.Company;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.vendors.Delivery;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.mail.ToPayee;
import org.springframework.web.util.HtmlUtils;

/**
 * What a payee is told by mail about one payment.
 *
 * @param link where it is seen here
 * @param number of its check, or its reference
 * @param goes how a check reaches the payee
 */
record AdviceLetter(
        PaymentId payment,
        String link,
        PaymentMethod method,
        String number,
        String payee,
        Money amount,
        LocalDate date,
        Delivery goes,
        int entries) {
    private static final int LONGEST_SUBJECT = 200;

    /** @param again whether it was sent before */
    ToPayee from(Company company, String address, boolean again) {
        String what = amount + " " + amount.currency().getCurrencyCode();
        String subject = "Remittance advice, " + called() + ": " + what + " from " + company.name();
        List<String> sentences = new ArrayList<>();
        sentences.add(company.name() + " pays " + payee + " " + what + " by "
                + (method == PaymentMethod.CHECK
                        ? called() + " of " + Dates.inWords(date)
                        : method.words() + " on " + Dates.inWords(date) + ", reference " + number)
                + ".");
        sentences.add("What it is for, "
                + (entries == 1 ? "1 entry" : entries + " entries")
                + ", is listed in the PDF that comes with this mail. "
                + onItsWay());
        if (again) {
            sentences.add("This is sent once more; nothing is paid twice.");
        }
        StringBuilder text = new StringBuilder("Good day,\n\n");
        StringBuilder html = new StringBuilder("<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>")
                .append(escape(subject))
                .append("</title></head><body style=\"font-family:sans-serif;max-width:40em\"><p>Good day,</p>");
        for (String sentence : sentences) {
            text.append(sentence).append("\n\n");
            html.append("<p>").append(escape(sentence)).append("</p>");
        }
        text.append(company.name()).append('\n');
        html.append("<p>").append(escape(company.name()));
        for (String line : company.address()) {
            text.append(line).append('\n');
            html.append("<br>").append(escape(line));
        }
        html.append("</p></body></html>");
        String oneLine = subject.replaceAll("\\p{Cntrl}+", " ");
        return new ToPayee(
                payment,
                address,
                oneLine.substring(0, Math.min(LONGEST_SUBJECT, oneLine.length())),
                text.toString(),
                html.toString(),
                link);
    }

    /** What people call it: {@code check 41237}. */
    String called() {
        return method.words() + " " + number;
    }

    private String onItsWay() {
        return switch (method) {
            case CHECK ->
                switch (goes) {
                    case MAIL -> "The check is on its way by letter post.";
                    case HAND_OVER -> "The check will be handed over.";
                    case COURIER -> "The check is on its way by courier.";
                };
            case ACH, CREDIT_TRANSFER -> "The bank has the order; when your account has the money, your own bank says.";
            case WIRE -> "The bank has sent it.";
            case CARD -> "The card was charged.";
        };
    }

    private static String escape(String text) {
        return HtmlUtils.htmlEscape(text, "UTF-8");
    }
}
