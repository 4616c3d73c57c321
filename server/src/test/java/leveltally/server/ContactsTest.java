package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.contacts.How;
import leveltally.core.payments.PaymentId;
import leveltally.server.contacts.Contacts;
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
}
