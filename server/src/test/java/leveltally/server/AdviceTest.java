package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.icegreen.greenmail.util.GreenMail;
import jakarta.mail.BodyPart;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.internet.MimeMessage;
import java.io.InputStream;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import leveltally.core.DateStyle;
import leveltally.core.batches.BatchId;
import leveltally.core.electronic.EntryClass;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.WayId;
import leveltally.core.payments.PaymentId;
import leveltally.core.printing.Answer;
import leveltally.core.printing.Turn;
import leveltally.core.vendors.Advice;
import leveltally.core.vendors.Delivery;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorFacts;
import leveltally.server.advice.Advices;
import leveltally.server.approval.Sending;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.batches.Deliveries;
import leveltally.server.batches.Drafting;
import leveltally.server.electronic.Electronic;
import leveltally.server.electronic.ElectronicWays;
import leveltally.server.electronic.Filing;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.mail.Outbox;
import leveltally.server.mail.Postman;
import leveltally.server.outside.OutsideRow;
import leveltally.server.posting.Posting;
import leveltally.server.printing.Numbered;
import leveltally.server.printing.Numbering;
import leveltally.server.printing.Turns;
import leveltally.server.proof.Proof;
import leveltally.server.vendors.VendorRecords;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import leveltally.server.wires.WireLists;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What a payee is told of its payment, by mail or on paper, as it wishes. */
class AdviceTest {
    private static final String VENDOR = "Pelorus Charts";
    private static final String DESK = "receivables@pelorus.example";

    private static void wishes(Paperwork papers) {
        wishes(VENDOR, papers);
    }

    private static void wishes(String vendor, Paperwork papers) {
        VendorRecords records = bean(VendorRecords.class);
        VendorRecords.Kept kept = records.kept(App.vendor(vendor));
        VendorFacts was = kept.facts();
        records.change(
                ines(),
                App.vendor(vendor),
                new VendorFacts(
                        was.name(), was.group(), was.priority(), was.method(), was.terms(), papers, was.reportable()),
                null,
                kept.version());
    }

    @AfterEach
    void asBefore() {
        wishes(Paperwork.USUAL);
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static InvoiceId[] invoices(int count) {
        return Stream.generate(() -> App.invoice(VENDOR, "1.25")).limit(count).toArray(InvoiceId[]::new);
    }

    private static Numbered number(BatchId batch) {
        Turn turn = bean(Turns.class).take(ines(), App.operations(), batch, "");
        return bean(Numbering.class).number(ines(), batch, turn.serial(), App.nextNumber(), "");
    }

    /** Prints what has its numbers, answers good and posts. */
    private static PaymentId post(BatchId batch, Numbered numbered) {
        App.handOver(numbered.run());
        App.answer(batch, App.documents(numbered.run()), Answer.GOOD, "");
        bean(Posting.class).post(ines(), batch);
        return new PaymentId(App.number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
    }

    private static void carry() {
        while (bean(Postman.class).carry(Instant.now()) > 0) {
            // until nothing waits
        }
    }

    private static List<String> mails(PaymentId payment) {
        return App.jdbc()
                .sql("SELECT CONCAT(address, ' ', state, ' ', trouble) FROM mail WHERE payment_id = ? ORDER BY id")
                .param(payment.value())
                .query(String.class)
                .list();
    }

    private static MimeMessage last(String domain) {
        MimeMessage[] all = bean(GreenMail.class).getReceivedMessagesForDomain(domain);
        return all[all.length - 1];
    }

    private static String enclosed(Part part) throws Exception {
        if (part.isMimeType("application/pdf")) {
            try (InputStream pdf = part.getInputStream();
                    var read = Loader.loadPDF(pdf.readAllBytes())) {
                return new PDFTextStripper().getText(read);
            }
        }
        if (part.getContent() instanceof Multipart parts) {
            for (int i = 0; i < parts.getCount(); i++) {
                BodyPart one = parts.getBodyPart(i);
                String found = enclosed(one);
                if (!found.isEmpty()) {
                    return found;
                }
            }
        }
        return "";
    }

    @Test
    void whoWishesMailGetsEveryLineAsPdfOncePostedAndNoPaper() throws Exception {
        wishes(new Paperwork(Advice.MAIL, DESK, Delivery.COURIER, DateStyle.ISO));
        InvoiceId[] many = invoices(30);
        BatchId batch = App.draft(many);
        bean(Drafting.class).show(ines(), batch, App.version(batch), Set.of(many[3], many[4]), false);
        bean(Sending.class).send(ines(), batch, App.version(batch));
        App.approve(batch);
        Numbered numbered = number(batch);
        assertThat(numbered.advices()).as("no advice on paper").isNull();
        assertThat(App.number(
                        "SELECT COUNT(*) FROM mail m JOIN payment p ON p.id = m.payment_id WHERE p.batch_id = ?",
                        batch.value()))
                .as("nothing is told before it is posted")
                .isZero();
        PaymentId payment = post(batch, numbered);
        assertThat(mails(payment)).hasSize(1);
        bean(Posting.class).post(ines(), batch);
        carry();
        assertThat(mails(payment)).as("posting again tells nobody again").containsExactly(DESK + " SENT ");
        MimeMessage mail = last("pelorus.example");
        assertThat(mail.getSubject()).contains(": 37.50 USD from ");
        assertThat(mail.getMessageID()).contains("@");
        String list = enclosed(mail);
        List<String> references = App.jdbc()
                .sql("SELECT l.reference FROM claim_line l JOIN claim c ON c.id = l.claim_id"
                        + " WHERE c.batch_id = ? AND NOT l.hidden")
                .param(batch.value())
                .query(String.class)
                .list();
        assertThat(references).hasSize(28).allSatisfy(one -> assertThat(list).contains(one));
        List<String> hidden = App.jdbc()
                .sql("SELECT l.reference FROM claim_line l JOIN claim c ON c.id = l.claim_id"
                        + " WHERE c.batch_id = ? AND l.hidden")
                .param(batch.value())
                .query(String.class)
                .list();
        assertThat(hidden).hasSize(2).noneSatisfy(one -> assertThat(list).contains(one));
        assertThat(list)
                .contains("2 more entries", "30 entries", "37.50", "2026-11-02")
                .contains(VENDOR);
    }

    @Test
    void whoIsPaidByFileIsToldOnceTheBankTookItAndItIsPosted() throws Exception {
        WayId way = Electronic.way(Electronic.wanted(Electronic.ach(EntryClass.CCD)));
        String vendor = Electronic.vendor(PaymentMethod.ACH, Electronic.account());
        wishes(vendor, new Paperwork(Advice.MAIL, "books@filed.example", Delivery.MAIL, null));
        InvoiceId[] both = {App.invoice(vendor, "20.00"), App.invoice(vendor, "21.50")};
        BatchId batch = Electronic.approved(way, both);
        bean(Filing.class).file(ines(), batch);
        PaymentId payment = new PaymentId(App.number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
        bean(BankAnswers.class).accepted(ines(), Electronic.file(batch), "");
        assertThat(mails(payment)).as("nothing is told before it is posted").isEmpty();
        // the vendor is called otherwise by then: what was kept stands
        bean(Posting.class).post(ines(), batch);
        carry();
        assertThat(mails(payment)).containsExactly("books@filed.example SENT ");
        MimeMessage mail = last("filed.example");
        String called = App.jdbc()
                .sql("SELECT called FROM electronic_item WHERE payment_id = ?")
                .param(payment.value())
                .query(String.class)
                .single();
        assertThat(mail.getSubject()).startsWith("Remittance advice, ACH " + called + ": 41.50 USD from ");
        List<String> references = App.jdbc()
                .sql("SELECT l.reference FROM claim_line l JOIN claim c ON c.id = l.claim_id WHERE c.batch_id = ?")
                .param(batch.value())
                .query(String.class)
                .list();
        assertThat(references).hasSize(2);
        assertThat(enclosed(mail)).contains(called, vendor, "41.50").contains(references);
        Http http = Http.signedIn("ines");
        assertThat(http.get("/api/payments/" + payment.value() + "/advice/pdf").status())
                .isEqualTo(200);
        assertThat(http.get("/api/stubs/pdf?payments=" + payment.value()).status())
                .isEqualTo(200);
    }

    @Test
    void aWireMadeElsewhereIsToldAsWell() {
        wishes(new Paperwork(Advice.MAIL, DESK, Delivery.MAIL, null));
        String number = "FT " + System.nanoTime() % 1_000_000;
        BatchId batch = App.elsewhere("Wires", new OutsideRow(number, App.TODAY, VENDOR, "5100", "66.00"));
        bean(Posting.class).post(ines(), batch);
        PaymentId payment = new PaymentId(App.number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
        carry();
        assertThat(mails(payment)).containsExactly(DESK + " SENT ");
        assertThat(Http.signedIn("ines")
                        .get("/api/payments/" + payment.value() + "/advice")
                        .body())
                .contains("\"maySend\":true");
    }

    @Test
    void whenWasIPaidIsAnsweredOnOneSheetWhateverCarriedIt() throws Exception {
        WayId way = Electronic.way(Electronic.wanted(Electronic.ach(EntryClass.CCD)));
        String vendor = Electronic.vendor(PaymentMethod.ACH, Electronic.account());
        BatchId byFile = Electronic.approved(way, App.invoice(vendor, "10.00"), App.invoice(vendor, "5.00"));
        bean(Filing.class).file(ines(), byFile);
        bean(BankAnswers.class).accepted(ines(), Electronic.file(byFile), "");
        bean(Posting.class).post(ines(), byFile);
        BatchId wire = App.elsewhere(
                "Wires", new OutsideRow("W " + System.nanoTime() % 1_000_000, App.TODAY, vendor, "5100", "66.00"));
        bean(Posting.class).post(ines(), wire);
        PaymentId gone = new PaymentId(App.number("SELECT id FROM payment WHERE batch_id = ?", wire.value()));
        Http http = Http.signedIn("ines");
        String asked = "/api/reports/paid-to?vendor=" + App.vendor(vendor).value() + "&to=2026-11-30";
        assertThat(http.get(asked).body())
                .contains(
                        "ACH payment", "10.00", "5.00", "15.00 USD", "Wire W ", "66.00 USD", "together, USD", "81.00");
        bean(Undoing.class)
                .undo(
                        ines(),
                        new Wanted(
                                List.of(new Wanted.One(gone.value(), List.of())),
                                App.TODAY,
                                Wanted.Fate.OPEN,
                                null,
                                "RET 1"),
                        "came back");
        // it is listed as undone, and counts nothing
        assertThat(http.get(asked).body()).contains("reversed", "66.00 USD").doesNotContain("81.00");
        assertThat(http.get(asked + "&from=2026-12-01").body()).contains("begins before it ends");
        assertThat(http.get("/api/reports/paid-to/pdf?vendor="
                                + App.vendor(vendor).value())
                        .status())
                .isEqualTo(200);
        String path = "/api/vendors/" + App.vendor(vendor).value() + "/paid";
        assertThat(http.post(path + "/mail", "{\"to\": \"2026-11-30\", \"address\": \"nobody\"}")
                        .body())
                .contains("This is no mail address");
        assertThat(http.post(path + "/mail", "{\"to\": \"2026-11-30\", \"address\": \"ar@sheet.example\"}")
                        .status())
                .isEqualTo(200);
        carry();
        assertThat(enclosed(last("sheet.example"))).contains("Paid to " + vendor, "ACH payment", "reversed");
        assertThat(http.get(path).body()).contains("ar@sheet.example", "\"state\":\"SENT\"");
        assertThat(http.get("/api/mail?whose=PAYEES").body()).contains("ar@sheet.example");
    }

    /** A way that calls its first payment as others of these do. */
    private static WayId alike() {
        return Electronic.way(new ElectronicWays.WantedFiles(
                Electronic.ach(EntryClass.CCD), "", "", "", "", "", false, "23:59", 0, "ALIKE", 1000, 0));
    }

    /** Two files of one day may call a payment the same, of the same amount. */
    @Test
    void twoPaymentsThatLookAlikeAreTwoOnTheSheet() {
        String vendor = Electronic.vendor(PaymentMethod.ACH, Electronic.account());
        for (int i = 0; i < 2; i++) {
            BatchId batch = Electronic.approved(alike(), App.invoice(vendor, "44.00"));
            bean(Filing.class).file(ines(), batch);
            bean(BankAnswers.class).accepted(ines(), Electronic.file(batch), "");
            bean(Posting.class).post(ines(), batch);
        }
        assertThat(Http.signedIn("ines")
                        .get("/api/reports/paid-to?vendor=" + App.vendor(vendor).value() + "&to=2026-11-30")
                        .body())
                .contains("ACH payment ALIKE1000", "44.00 USD", "88.00");
    }

    /** By the day the bank sent it: it was to go tomorrow, and went today. */
    @Test
    void aWireStandsOnTheSheetOnTheDayItWasSent() {
        WayId way = bean(BankAccountSetup.class)
                .addWay(
                        Electronic.joss(),
                        App.operations(),
                        new BankAccountSetup.WantedWay("Wires told", PaymentMethod.WIRE, false));
        String vendor = Electronic.vendor(PaymentMethod.WIRE, Electronic.account());
        BatchId batch = Electronic.approved(way, App.invoice(vendor, "45.00"));
        bean(WireLists.class).list(ines(), batch);
        PaymentId wire = new PaymentId(App.number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
        bean(WireLists.class).confirm(ines(), wire, new WireLists.Typed("FT TOLD 1", "", App.TODAY));
        bean(Posting.class).post(ines(), batch);
        assertThat(Http.signedIn("ines")
                        .get("/api/reports/paid-to?vendor=" + App.vendor(vendor).value() + "&to=" + App.TODAY)
                        .body())
                .contains("45.00 USD", "Thu 12 Nov 2026, sent");
    }

    @Test
    void whoWishesBothGetsBothAndTheOthersPaperOnly() {
        wishes(new Paperwork(Advice.BOTH, DESK, Delivery.MAIL, null));
        BatchId both = App.approved(invoices(30));
        Numbered numbered = number(both);
        assertThat(numbered.advices()).isNotNull();
        App.handOver(numbered.advices());
        PaymentId payment = post(both, numbered);
        // what was promised when it was printed stands
        wishes(Paperwork.USUAL);
        assertThat(mails(payment)).hasSize(1);
        BatchId paper = App.approved(invoices(2));
        assertThat(mails(post(paper, number(paper)))).isEmpty();
    }

    @Test
    void anAddressThatIsGoneByThenIsSeenAndSentToAnother() {
        wishes(new Paperwork(Advice.MAIL, DESK, Delivery.MAIL, null));
        BatchId batch = App.approved(invoices(2));
        Numbered numbered = number(batch);
        wishes(Paperwork.USUAL);
        PaymentId payment = post(batch, numbered);
        assertThat(mails(payment)).singleElement().asString().contains("GIVEN_UP no mail address is known");
        Http http = Http.signedIn("ines");
        assertThat(http.post(
                                "/api/payments/" + payment.value() + "/advice/mail",
                                "{\"address\": \"Desk <a@b.example>\"}")
                        .body())
                .contains("This is no mail address");
        assertThat(http.post(
                                "/api/payments/" + payment.value() + "/advice/mail",
                                "{\"address\": \" books@pelorus.example \"}")
                        .status())
                .isEqualTo(200);
        carry();
        assertThat(mails(payment)).last().isEqualTo("books@pelorus.example SENT ");
        long sent = App.number("SELECT MAX(id) FROM mail WHERE payment_id = ?", payment.value());
        bean(Outbox.class).returned(ines(), sent, "no such mailbox");
        assertThat(mails(payment)).last().isEqualTo("books@pelorus.example RETURNED no such mailbox");
        assertThatThrownBy(() -> bean(Outbox.class).returned(ines(), sent, "again"))
                .hasMessageContaining("Only advice that was sent");
        String seen = http.get("/api/payments/" + payment.value() + "/advice").body();
        assertThat(seen).contains("came back", "no such mailbox", "\"maySend\":true");
        // what is in trouble comes first, among people's mail it is not listed
        assertThat(http.get("/api/mail?whose=PAYEES").body().split("\"id\":")[1])
                .contains("\"inTrouble\":true");
        assertThat(http.get("/api/mail?whose=PEOPLE").body()).doesNotContain("books@pelorus.example");
        bean(Advices.class).again(ines(), payment, DESK);
        assertThat(http.get("/api/payments/" + payment.value() + "/advice").body())
                .contains("came back, sent again since");
    }

    @Test
    void nothingIsSaidOfAPaymentThatWasNotPosted() {
        wishes(new Paperwork(Advice.MAIL, DESK, Delivery.MAIL, null));
        BatchId batch = App.approved(invoices(1));
        number(batch);
        PaymentId payment = new PaymentId(App.number("SELECT id FROM payment WHERE batch_id = ?", batch.value()));
        assertThatThrownBy(() -> bean(Advices.class).again(ines(), payment, DESK))
                .hasMessageContaining("nothing to advise of");
        assertThat(mails(payment)).isEmpty();
    }

    @Test
    void checksGoAsTheVendorsUsuallyDoUnlessSomebodySaysOtherwise() {
        wishes(new Paperwork(Advice.PAPER, "", Delivery.COURIER, null));
        BatchId batch = App.approved(invoices(1));
        Deliveries deliveries = bean(Deliveries.class);
        var claim =
                bean(leveltally.server.batches.ClaimRows.class).of(batch).get(0).id();
        assertThat(deliveries.of(batch)).containsEntry(claim, Delivery.COURIER);
        deliveries.say(ines(), batch, Set.of(claim), Delivery.MAIL);
        assertThat(deliveries.of(batch)).isEmpty();
    }

    @Test
    void rejectsMailWithoutAnAddress() {
        assertThatThrownBy(() -> Paperwork.typed(Advice.BOTH, " ", Delivery.MAIL, null))
                .hasMessageContaining("needs an address");
        assertThatThrownBy(() -> App.jdbc()
                        .sql("UPDATE vendor SET advice = 'MAIL', email = '' WHERE id = ?")
                        .param(App.vendor(VENDOR).value())
                        .update())
                .hasMessageContaining("advice_by_mail_has_an_address");
    }
}
