package leveltally.server.contacts;

import java.sql.Timestamp;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.company.Company;
import leveltally.core.contacts.ContactLetter;
import leveltally.core.contacts.How;
import leveltally.core.contacts.LetterPage;
import leveltally.core.money.Money;
import leveltally.core.paper.Measure;
import leveltally.core.paper.Page;
import leveltally.core.paper.PageSize;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.Paperwork;
import leveltally.server.audit.AuditTrail;
import leveltally.server.company.Companies;
import leveltally.server.mail.Outbox;
import leveltally.server.mail.ToPayee;
import leveltally.server.paper.Pdf;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.util.HtmlUtils;

/** Asks payees about checks they do not present: by letter, by mail, by telephone; each kept with its day. */
@Service
public class Contacts {
    private final JdbcClient jdbc;
    private final JdbcTemplate plain;
    private final Companies companies;
    private final Outbox outbox;
    private final Measure measure;
    private final AuditTrail audit;

    Contacts(
            JdbcClient jdbc,
            JdbcTemplate plain,
            Companies companies,
            Outbox outbox,
            Measure measure,
            AuditTrail audit) {
        this.jdbc = jdbc;
        this.plain = plain;
        this.companies = companies;
        this.outbox = outbox;
        this.measure = measure;
        this.audit = audit;
    }

    /** A check somebody is asked about. */
    private record Asked(
            PaymentId payment,
            long check,
            long series,
            String number,
            boolean printed,
            String payee,
            List<String> address,
            String email,
            Money amount,
            LocalDate date,
            PaymentState state) {}

    /** The letter in use. */
    @Transactional(readOnly = true)
    ContactLetter letter() {
        return jdbc.sql("SELECT subject, text FROM contact_letter ORDER BY id DESC LIMIT 1")
                .query((r, n) -> new ContactLetter(r.getString("subject"), r.getString("text")))
                .optional()
                .orElse(ContactLetter.USUAL);
    }

    @Transactional
    public void changeLetter(Actor by, ContactLetter wanted) {
        by.mayDo(Deed.CHANGE_LETTER);
        if (wanted.equals(letter())) {
            return;
        }
        jdbc.sql("INSERT INTO contact_letter (subject, text, made_at, made_by) VALUES (?, ?, ?, ?)")
                .params(
                        wanted.subject(),
                        wanted.text(),
                        Timestamp.from(by.now()),
                        by.person().value())
                .update();
        audit.record(by, "change letter to payees", "letter to payees", Map.of("subject", wanted.subject()));
    }

    /**
     * Writes down that payees were asked, or what they said.
     *
     * @param how anything but a mail, which is sent from here
     * @throws Refusal when one of the checks is not outstanding; then none is written down
     */
    @Transactional
    public void note(Actor by, Collection<PaymentId> payments, How how, LocalDate on, String note) {
        by.mayDo(Deed.CONTACT_PAYEE);
        if (how == How.MAIL) {
            throw Refusal.invalidField("mail-is-sent", "how", "A mail is sent from here. Choose another way.");
        }
        if (on.isAfter(by.today())) {
            throw Refusal.invalidField("contact-ahead", "on", "That day has not come. Say when the payee was asked.");
        }
        String words = note.strip();
        if (words.isEmpty() && how != How.LETTER) {
            throw Refusal.invalidField("note-missing", "note", "Say what was asked, or what the payee said.");
        }
        keep(by, outstanding(payments), how, on, words);
    }

    /**
     * Mails the letter to those whose address is known.
     *
     * @return the payees who have none, or whose check was not printed here; the others are told
     */
    @Transactional
    public List<String> mail(Actor by, Collection<PaymentId> payments) {
        by.mayDo(Deed.CONTACT_PAYEE);
        Company company = companies.company();
        ContactLetter letter = letter();
        List<Asked> told = new ArrayList<>();
        List<String> without = new ArrayList<>();
        for (Asked one : outstanding(payments)) {
            if (one.printed() && Paperwork.isAddress(one.email())) {
                told.add(one);
            } else {
                without.add(one.payee());
            }
        }
        outbox.put(
                told.stream()
                        .map(one -> mail(one, filled(letter, one, company, by.today())))
                        .toList(),
                by.now());
        keep(by, told, How.MAIL, by.today(), "");
        return without;
    }

    private static ToPayee mail(Asked one, ContactLetter.Filled letter) {
        StringBuilder html = new StringBuilder("<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>")
                .append(HtmlUtils.htmlEscape(letter.subject(), "UTF-8"))
                .append("</title></head><body style=\"font-family:sans-serif;max-width:40em\">");
        letter.paragraphs()
                .forEach(paragraph -> html.append("<p>")
                        .append(HtmlUtils.htmlEscape(paragraph, "UTF-8").replace("\n", "<br>"))
                        .append("</p>"));
        return new ToPayee(
                one.payment(),
                one.email(),
                letter.subject().replaceAll("\\p{Cntrl}+", " "),
                String.join("\n\n", letter.paragraphs()) + "\n",
                html.append("</body></html>").toString(),
                "/register?series=" + one.series() + "&check=" + one.check());
    }

    /** The letters to the payees of these checks, a sheet each, as one document. */
    @Transactional(readOnly = true)
    public byte[] pages(Actor by, Collection<PaymentId> payments) {
        by.mayDo(Deed.READ);
        Company company = companies.company();
        ContactLetter letter = letter();
        List<String> sender = new ArrayList<>(List.of(company.name()));
        sender.addAll(company.address());
        List<Page> pages = outstanding(payments).stream()
                .map(one -> {
                    List<String> to = new ArrayList<>(List.of(one.payee()));
                    to.addAll(one.address());
                    return LetterPage.of(
                            sender,
                            to,
                            Dates.inWords(by.today()),
                            filled(letter, one, company, by.today()),
                            PageSize.LETTER,
                            measure);
                })
                .toList();
        return Pdf.of("Letters to payees", pages);
    }

    private static ContactLetter.Filled filled(ContactLetter letter, Asked one, Company company, LocalDate today) {
        return letter.filled(Map.of(
                "payee", one.payee(),
                "number", one.number(),
                "amount", one.amount() + " " + one.amount().currency().getCurrencyCode(),
                "date", Dates.inWords(one.date()),
                "days", Long.toString(ChronoUnit.DAYS.between(one.date(), today)),
                "company", company.name()));
    }

    private void keep(Actor by, List<Asked> asked, How how, LocalDate on, String note) {
        plain.batchUpdate(
                "INSERT INTO contact (payment_id, how, contacted_on, note, made_at, made_by) VALUES (?, ?, ?, ?, ?, ?)",
                asked.stream()
                        .map(one -> new Object[] {
                            one.payment().value(),
                            how.name(),
                            on,
                            note,
                            Timestamp.from(by.now()),
                            by.person().value()
                        })
                        .toList());
        asked.forEach(one -> audit.record(
                by,
                "contact payee",
                "check " + one.number(),
                Map.of("by", how.words(), "on", on.toString(), "note", note)));
    }

    /** @throws Refusal when one of them is no outstanding check */
    private List<Asked> outstanding(Collection<PaymentId> payments) {
        List<Long> wanted = payments.stream().map(PaymentId::value).distinct().toList();
        if (wanted.isEmpty()) {
            throw Refusal.invalid("nothing-chosen", "Choose the checks first.");
        }
        List<Asked> found = jdbc.sql("""
                        SELECT p.id, n.id AS check_id, n.series_id, CONCAT(s.prefix, n.number) AS number, n.state = 'PRINTED' AS printed,
                          p.payee, c.address, v.email, p.amount_minor, p.currency, p.check_date, p.state
                        FROM payment p JOIN check_number n ON n.live_payment_id = p.id
                        JOIN number_series s ON s.id = n.series_id JOIN vendor v ON v.id = p.vendor_id
                        JOIN claim c ON c.id = p.claim_id WHERE p.id IN (:payments) ORDER BY p.check_date, n.number
                        """)
                .param("payments", wanted)
                .query((r, n) -> new Asked(
                        new PaymentId(r.getLong("id")),
                        r.getLong("check_id"),
                        r.getLong("series_id"),
                        r.getString("number"),
                        r.getBoolean("printed"),
                        r.getString("payee"),
                        List.of(r.getString("address").split("\n")),
                        r.getString("email"),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                        r.getObject("check_date", LocalDate.class),
                        PaymentState.valueOf(r.getString("state"))))
                .list();
        if (found.size() < wanted.size()) {
            throw Refusal.notFound("no-check", "Not all of these are checks. Look at the list again.");
        }
        for (Asked one : found) {
            if (one.state() != PaymentState.OUTSTANDING && one.state() != PaymentState.STOPPED) {
                throw Refusal.conflict(
                        "not-outstanding",
                        "Check " + one.number() + " is " + one.state().words()
                                + " by now, so its payee is not asked any more. Leave it out.");
            }
        }
        return found;
    }
}
