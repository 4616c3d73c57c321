package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.contacts.How;
import leveltally.core.payments.PaymentId;
import leveltally.server.contacts.Contacts;
import leveltally.server.outside.OutsideRow;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Questions;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;

/** Payees asked about checks they do not present, each step with its day. */
class ContactsTest {
    private static PaymentId stale() {
        return new PaymentId(number(
                "SELECT MIN(p.id) FROM payment p JOIN check_number n ON n.live_payment_id = p.id AND n.state = 'PRINTED'"
                        + " WHERE p.state = 'OUTSTANDING' AND p.check_date < '2026-05-01'"));
    }

    private static long contacts(PaymentId payment) {
        return number("SELECT COUNT(*) FROM contact WHERE payment_id = ?", payment.value());
    }

    @Test
    void staleChecksAreListedWithTheirAgeAndHowTheirPayeesWereAsked() {
        PaymentId payment = stale();
        Contacts contacts = bean(Contacts.class);
        contacts.note(ines(), List.of(payment), How.CALL, LocalDate.of(2026, 11, 11), "they look for it");
        Http priya = Http.signedIn("priya");
        assertThat(priya.get("/api/stale").body())
                .contains("\"payment\":" + payment.value(), "they look for it", "telephone call", "181 days to a year");
        // only long outstanding ones are listed
        assertThat(priya.get("/api/stale?days=700").body()).doesNotContain("\"payment\":" + payment.value());
        assertThatThrownBy(() -> contacts.note(ines(), List.of(payment), How.CALL, App.TODAY, " "))
                .hasMessageContaining("what the payee said");
        assertThatThrownBy(() -> contacts.note(ines(), List.of(payment), How.NOTE, App.TODAY.plusDays(1), "x"))
                .hasMessageContaining("has not come");
        assertThatThrownBy(() -> contacts.note(ines(), List.of(payment), How.MAIL, App.TODAY, "x"))
                .hasMessageContaining("sent from here");
        PaymentId cleared = new PaymentId(number("SELECT MIN(p.id) FROM payment p JOIN check_number n"
                + " ON n.live_payment_id = p.id WHERE p.state = 'CLEARED'"));
        long before = contacts(payment);
        assertThatThrownBy(() -> contacts.note(ines(), List.of(payment, cleared), How.LETTER, App.TODAY, ""))
                .hasMessageContaining("is cleared by now");
        assertThat(contacts(payment)).as("all or none").isEqualTo(before);
    }

    @Test
    void theLetterIsFilledForEachPayee() throws IOException {
        PaymentId payment = stale();
        String payee = App.jdbc()
                .sql("SELECT payee FROM payment WHERE id = ?")
                .param(payment.value())
                .query(String.class)
                .single();
        Http ruth = Http.signedIn("ruth");
        assertThat(ruth.post("/api/stale/letter", "{\"subject\": \"{nothing}\", \"text\": \"x\"}")
                        .body())
                .contains("Nothing fills {nothing}");
        assertThat(ruth.post(
                                "/api/stale/letter",
                                "{\"subject\": \"About {number}\", \"text\": \"To {payee}: {amount}, {days} days.\"}")
                        .status())
                .isEqualTo(200);
        try (var document = Loader.loadPDF(bean(Contacts.class).pages(ines(), List.of(payment)))) {
            assertThat(document.getNumberOfPages()).isOne();
            assertThat(new PDFTextStripper().getText(document)).contains("To " + payee + ":", "days.", "About ");
        }
        assertThat(ruth.get("/api/stale/letters?payments=" + payment.value(), "application/pdf")
                        .status())
                .isEqualTo(200);
        assertThat(ruth.get("/api/stale/letters?payments=", "application/pdf").status())
                .isEqualTo(422);
    }

    @Test
    void aMailGoesToWhoeverHasAnAddressAndIsKept() {
        PaymentId payment = stale();
        long vendor = number("SELECT vendor_id FROM payment WHERE id = ?", payment.value());
        App.asRoot("UPDATE vendor SET email = '' WHERE id = " + vendor);
        Http clerk = Http.signedIn("ines");
        String body = "{\"payments\": [%d]}".formatted(payment.value());
        assertThat(clerk.post("/api/stale/mail", body).body()).contains("\"sent\":0");
        long before = contacts(payment);
        App.asRoot("UPDATE vendor SET email = 'office@payee.example' WHERE id = " + vendor);
        assertThat(clerk.post("/api/stale/mail", body).body()).contains("\"sent\":1");
        assertThat(contacts(payment)).isEqualTo(before + 1);
        assertThat(App.jdbc()
                        .sql(
                                "SELECT CONCAT(address, ' ', subject) FROM mail WHERE payment_id = ? ORDER BY id DESC LIMIT 1")
                        .param(payment.value())
                        .query(String.class)
                        .single())
                .startsWith("office@payee.example");
    }

    /** A check from the book, of a year ago to the day. */
    private static PaymentId ofAYearAgo(String number) {
        BatchId batch = App.elsewhere(
                "Check book, harbour office",
                new OutsideRow(number, LocalDate.of(2025, 11, 12), "Fathom Survey Partners", "5500", "64.00"));
        bean(Posting.class).post(ines(), batch);
        return new PaymentId(number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
    }

    private static Wanted handingOver(PaymentId payment, String account) {
        return new Wanted(
                List.of(new Wanted.One(payment.value(), List.of())),
                App.TODAY,
                new Wanted.Fate(
                        Wanted.How.UNCLAIMED, number("SELECT id FROM ledger_account WHERE code = ?", account), null),
                null,
                null);
    }

    @Test
    void whatIsNotClaimedIsHandedOverByTwoOnceItsStateTakesIt() {
        PaymentId payment = ofAYearAgo("H-801");
        Undoing undoing = bean(Undoing.class);
        Wanted wanted = handingOver(payment, "2300");
        Http ruth = Http.signedIn("ruth");
        assertThat(ruth.post("/api/stale/dormancy", "{\"text\": \"\"}").status())
                .isEqualTo(200);
        assertThatThrownBy(() -> undoing.undo(ines(), wanted, "never presented"))
                .hasMessageContaining("It is not kept after how many years");
        assertThat(ruth.post("/api/stale/dormancy", "{\"text\": \"* everywhere 2\"}")
                        .status())
                .isEqualTo(200);
        assertThatThrownBy(() -> undoing.undo(ines(), wanted, "never presented"))
                .hasMessageContaining("to everywhere from Fri 12 Nov 2027 on");
        assertThat(ruth.post("/api/stale/dormancy", "{\"text\": \"* everywhere\"}")
                        .body())
                .contains("Line 1");
        assertThat(ruth.post("/api/stale/dormancy", "{\"text\": \"410 Skerrow 1\\n* elsewhere 9\"}")
                        .status())
                .isEqualTo(200);
        assertThatThrownBy(() -> undoing.undo(ines(), wanted, "never presented"))
                .hasMessageContaining("was not asked by letter or mail yet");
        bean(Contacts.class).note(ines(), List.of(payment), How.LETTER, App.TODAY, "");
        assertThatThrownBy(() -> undoing.undo(ines(), handingOver(payment, "5500"), "never presented"))
                .hasMessageContaining("no account of the kind");
        // nor on a day before the state takes it
        Wanted earlier = new Wanted(wanted.payments(), App.TODAY.minusDays(1), wanted.others(), null, null);
        assertThatThrownBy(() -> undoing.undo(ines(), earlier, "never presented"))
                .isInstanceOf(Refusal.class);
        Undoing.Asked asked = undoing.undo(ines(), wanted, "never presented");
        assertThat(asked.waits()).isTrue();
        // whoever agrees is told what it is
        assertThat(ruth.get("/api/undoing/" + asked.id()).body()).contains("Handed over as unclaimed");
        assertThatThrownBy(() -> bean(Questions.class).agree(ines(), asked.id()))
                .isNotNull();
        bean(Questions.class).agree(App.ruth(), asked.id());
        assertThat(number(
                        "SELECT SUM(l.credit_minor - l.debit_minor) FROM payment p JOIN journal_line l ON l.entry_id = p.undone_entry_id"
                                + " JOIN ledger_account a ON a.id = l.account_id AND a.code = '2300' WHERE p.id = ?",
                        payment.value()))
                .isEqualTo(6_400);
        assertThat(number(
                        "SELECT COUNT(*) FROM payment p JOIN journal_line l ON l.entry_id = p.undone_entry_id WHERE p.id = ?",
                        payment.value()))
                .isEqualTo(2);
        assertThat(ruth.get("/api/reports/unclaimed").body())
                .contains("Skerrow", "Fathom Survey Partners", "H-801", "64.00");
        assertThat(ruth.get("/api/reports/unclaimed/csv").body()).contains("Fathom Survey Partners");
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }
}
