package leveltally.server.reports;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.company.Company;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.company.Companies;
import leveltally.server.mail.MailRows;
import leveltally.server.mail.MailView;
import leveltally.server.mail.Outbox;
import leveltally.server.mail.PaidSheetMail;
import leveltally.server.vendors.VendorRecords;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.util.HtmlUtils;

/** Sends a vendor the sheet of what it was paid in a period. */
@Service
class PaidSheetSending {
    private final Outbox outbox;
    private final MailRows mails;
    private final VendorRecords vendors;
    private final Companies companies;
    private final AuditTrail audit;

    PaidSheetSending(Outbox outbox, MailRows mails, VendorRecords vendors, Companies companies, AuditTrail audit) {
        this.outbox = outbox;
        this.mails = mails;
        this.vendors = vendors;
        this.companies = companies;
        this.audit = audit;
    }

    /**
     * @param address where the vendor's advice goes; empty for nowhere
     * @param sent those sent before, the newest first
     */
    record Before(String address, List<MailView> sent) {}

    @Transactional(readOnly = true)
    Before before(Actor by, VendorId vendor) {
        by.mayDo(Deed.READ);
        return new Before(vendors.kept(vendor).facts().paperwork().email(), mails.sheetsOf(vendor));
    }

    @Transactional
    void send(Actor by, VendorId vendor, LocalDate from, LocalDate to, String typed) {
        by.mayDo(Deed.MAIL_ADVICE);
        PaidSheet.mustBePeriod(from, to);
        String address = typed.strip();
        if (!Paperwork.isAddress(address)) {
            throw Refusal.invalidField("no-address", "address", "This is no mail address. Type one, without a name.");
        }
        String name = vendors.kept(vendor).facts().name();
        Company company = companies.company();
        String period = "from " + Dates.inWords(from) + " to " + Dates.inWords(to);
        String sentence = "The PDF that comes with this mail lists what " + company.name() + " paid " + name + " "
                + period + ", and what each payment was for.";
        String html = "<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>"
                + escape("What you were paid") + "</title></head><body style=\"font-family:sans-serif;max-width:40em\">"
                + "<p>Good day,</p><p>" + escape(sentence) + "</p><p>" + escape(company.name()) + "</p></body></html>";
        outbox.put(
                new PaidSheetMail(
                        vendor,
                        from,
                        to,
                        address,
                        ("What " + company.name() + " paid you " + period).replaceAll("\\p{Cntrl}+", " "),
                        "Good day,\n\n" + sentence + "\n\n" + company.name() + "\n",
                        html,
                        "/vendors/" + vendor.value()),
                by.now());
        audit.record(
                by,
                "send what was paid",
                "vendor " + vendor.value(),
                Map.of("from", from.toString(), "to", to.toString(), "address", address));
    }

    private static String escape(String text) {
        return HtmlUtils.htmlEscape(text, "UTF-8");
    }
}
