package leveltally.server;

import static leveltally.server.App.aldo;
import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.invoice;
import static leveltally.server.App.maren;
import static leveltally.server.App.ruth;
import static leveltally.server.App.version;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.GreenMailUtil;
import jakarta.mail.internet.MimeMessage;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.people.Actor;
import leveltally.core.people.Role;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Deputies;
import leveltally.server.approval.Reminders;
import leveltally.server.approval.Sending;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Withdrawing;
import leveltally.server.invoices.Holds;
import leveltally.server.mail.Postman;
import leveltally.server.marks.MarkAnswers;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Asked, answered by different hands, struck, sent back, voided; and what the mailbox says of it. */
class ApprovalTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Http MAREN = Http.signedIn("maren");
    private static final String FOUNDRY = "Bollard Foundry";
    private final Approvals approvals = bean(Approvals.class);
    private final Sending sending = bean(Sending.class);
    private final Drafting drafting = bean(Drafting.class);
    private final Withdrawing withdrawing = bean(Withdrawing.class);

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    private BatchId sent(InvoiceId... invoices) {
        BatchId batch = App.draft(invoices);
        sending.send(ines(), batch, version(batch));
        return batch;
    }

    private void approve(Actor by, BatchId batch) {
        approvals.approve(by, batch, approvals.seen(batch));
    }

    private static BatchState state(BatchId batch) {
        return bean(Batches.class).get(batch).state();
    }

    private static JsonNode asked(Http http, BatchId batch) {
        return JSON.readTree(http.get("/api/approval/" + batch.value()).body());
    }

    private static JsonNode waiting(Http http, BatchId batch) {
        return JSON.readTree(http.get("/api/approval").body())
                .get("batches")
                .valueStream()
                .filter(one -> one.get("id").asLong() == batch.value())
                .findFirst()
                .orElseThrow();
    }

    private static ClaimId claimOf(BatchId batch, String payee) {
        return bean(ClaimRows.class).of(batch).stream()
                .filter(claim -> claim.remitTo().payee().equals(payee))
                .map(Claim::id)
                .findFirst()
                .orElseThrow();
    }

    /** What arrived for somebody since the mailbox was emptied, newest last. */
    private static List<String> mailbox(String signIn) {
        carryAll();
        MimeMessage[] all = bean(GreenMail.class).getReceivedMessagesForDomain(signIn + "@marrowbay.example");
        // lines are broken anywhere on their way
        return Arrays.stream(all)
                .map(mail -> GreenMailUtil.getWholeMessage(mail).replaceAll("=\\r?\\n", ""))
                .toList();
    }

    private static void emptyMailbox() throws Exception {
        carryAll();
        bean(GreenMail.class).purgeEmailFromAllMailboxes();
    }

    /** Carries what waits, and what is only due in a few days. */
    private static void carryAll() {
        Instant later = Instant.now().plus(Duration.ofDays(4));
        while (bean(Postman.class).carry(later) > 0) {
            // until nothing waits
        }
    }

    private static List<String> subjects(String signIn) {
        carryAll();
        return Arrays.stream(bean(GreenMail.class).getReceivedMessagesForDomain(signIn + "@marrowbay.example"))
                .map(message -> {
                    try {
                        return message.getSubject();
                    } catch (jakarta.mail.MessagingException broken) {
                        throw new IllegalStateException(broken);
                    }
                })
                .toList();
    }

    @Test
    void aLargePaymentNeedsTwoPeopleAndTheMailboxTellsEachOfThem() throws Exception {
        emptyMailbox();
        BatchId batch = sent(invoice("Coaming Timber", "12010.17"));
        assertThat(waiting(MAREN, batch).get("mine").asBoolean()).isTrue();
        assertThat(waiting(Http.signedIn("priya"), batch).get("mine").asBoolean())
                .isFalse();
        assertThat(asked(MAREN, batch).get("route").get("why").asString())
                .contains("largest payment 12,010.17 is over 10,000.00");
        assertThat(subjects("maren")).containsExactly("Asked: Test batch");
        assertThat(subjects("ruth")).isEmpty();
        approve(maren(), batch);
        assertThat(state(batch)).isEqualTo(BatchState.IN_APPROVAL);
        assertThat(subjects("ines")).isEmpty();
        assertThatThrownBy(() -> approve(maren(), batch)).hasMessageContaining("somebody else must take this step");
        assertThat(waiting(MAREN, batch).get("whyNot").asString()).contains("answered for this batch already");
        assertThat(subjects("ruth")).containsExactly("Asked: Test batch");
        approve(aldo(), batch);
        assertThat(state(batch)).isEqualTo(BatchState.APPROVED);
        assertThat(subjects("ines")).containsExactly("Approved: Test batch");
        String mail = mailbox("ruth").get(0);
        assertThat(mail)
                .contains("multipart/alternative")
                .contains("/approval/" + batch.value())
                .contains("12,010.17 USD in 1 payment")
                .contains("<a href=")
                .doesNotContain("<form")
                .doesNotContain("token");
        withdrawing.withdraw(ines(), batch, version(batch));
    }

    @Test
    void aRefusedRoleAndOwnHandsStaySo() {
        BatchId batch = sent(invoice(FOUNDRY, "61.37"));
        Actor both =
                new Actor(ines().person(), "Ines", Set.of(Role.CLERK, Role.APPROVER), App.TODAY, Instant.now(), "test");
        assertThatThrownBy(() -> approve(ines(), batch)).hasMessageContaining("needs the role");
        assertThatThrownBy(() -> approve(both, batch)).hasMessageContaining("You prepared or changed this batch");
        assertThatThrownBy(() -> approvals.strike(both, batch, Set.of(claimOf(batch, FOUNDRY)), "x"))
                .hasMessageContaining("You prepared or changed this batch");
        approvals.sendBack(maren(), batch, "not now", Map.of());
        withdrawing.withdraw(ines(), batch, version(batch));
    }

    @Test
    void aDeputyAnswersForSomebodyUnderBothSeparations() {
        bean(Deputies.class).name(aldo(), aldo().person(), ruth().person(), App.TODAY, App.TODAY);
        BatchId everyday = sent(invoice(FOUNDRY, "62.41"));
        approve(ruth(), everyday);
        assertThat(App.number("SELECT on_behalf_of FROM approval WHERE batch_id = ?", everyday.value()))
                .isEqualTo(aldo().person().value());
        assertThat(state(everyday)).isEqualTo(BatchState.APPROVED);
        BatchId large = sent(invoice("Coaming Timber", "12020.19"));
        approve(ruth(), large);
        // Ruth answered for Aldo, so neither of them takes the second step
        assertThatThrownBy(() -> approve(aldo(), large)).hasMessageContaining("somebody else must take this step");
        approve(maren(), large);
        assertThatThrownBy(() -> bean(Deputies.class)
                        .name(aldo(), aldo().person(), ruth().person(), App.TODAY, App.TODAY.plusDays(3)))
                .hasMessageContaining("on some of these days already");
        long deputy = App.number("SELECT MAX(id) FROM deputy");
        assertThatThrownBy(() -> bean(Deputies.class).end(maren(), deputy)).hasMessageContaining("your own deputies");
        bean(Deputies.class).end(aldo(), deputy);
        BatchId after = sent(invoice(FOUNDRY, "63.43"));
        assertThatThrownBy(() -> approve(ruth(), after)).hasMessageContaining("waits for others");
        for (BatchId batch : List.of(everyday, large, after)) {
            withdrawing.withdraw(ines(), batch, version(batch));
        }
    }

    @Test
    void aStrikeLeavesTheOtherApprovalsStanding() throws Exception {
        emptyMailbox();
        BatchId batch = sent(invoice("Coaming Timber", "12030.23"), invoice(FOUNDRY, "64.47"));
        String seen = approvals.seen(batch);
        approve(maren(), batch);
        approvals.strike(aldo(), batch, Set.of(claimOf(batch, FOUNDRY)), "ordered twice");
        assertThatThrownBy(() -> approvals.approve(aldo(), batch, seen)).hasMessageContaining("Nothing was approved");
        assertThat(bean(Batches.class).hands(batch)).containsExactly(ines().person());
        approve(aldo(), batch);
        assertThat(state(batch)).isEqualTo(BatchState.APPROVED);
        assertThat(subjects("ines")).contains("Struck from Test batch", "Approved: Test batch");
        // what was approved of the payment that stayed still counts
        long next = App.nextNumber();
        App.numbered(batch);
        assertThat(App.nextNumber()).isEqualTo(next + 1);
    }

    @Test
    void whoApprovedMayThinkBetterOfItButExplainsNothing() {
        BatchId batch = sent(invoice("Coaming Timber", "12040.29"));
        approve(maren(), batch);
        Actor clerkToo = new Actor(
                maren().person(), "Maren", Set.of(Role.CLERK, Role.APPROVER), App.TODAY, Instant.now(), "test");
        assertThatThrownBy(() -> bean(MarkAnswers.class).answer(clerkToo, batch, "FAR_ABOVE 1 x", "it is fine"))
                .hasMessageContaining("somebody else says what its marks are about");
        approvals.sendBack(maren(), batch, "I looked again: the crane is not in it", Map.of());
        assertThat(state(batch)).isEqualTo(BatchState.DRAFT);
        // an edit by somebody whose approval is void already breaks no law
        drafting.takeOut(clerkToo, batch, version(batch), Set.of(App.invoiceOf(batch)));
        assertThat(bean(Proof.class).run().isClean()).isTrue();
        withdrawing.withdraw(ines(), batch, version(batch));
    }

    @Test
    void nothingLeftIsWithdrawn() {
        InvoiceId only = invoice(FOUNDRY, "65.53");
        BatchId batch = sent(only);
        approvals.strike(maren(), batch, Set.of(claimOf(batch, FOUNDRY)), "not ours");
        assertThat(state(batch)).isEqualTo(BatchState.WITHDRAWN);
        assertThat(App.number("SELECT COUNT(*) FROM reservation WHERE invoice_id = ?", only.value()))
                .isZero();
        assertThatThrownBy(() -> approve(maren(), batch)).hasMessageContaining("withdrawn, so there is nothing");
    }

    @Test
    void afterAReturnOnlyWhatChangedStandsOut() throws Exception {
        emptyMailbox();
        InvoiceId stays = invoice("Pelorus Charts", "66.59");
        InvoiceId goes = invoice(FOUNDRY, "67.61");
        BatchId batch = sent(stays, goes, invoice(FOUNDRY, "68.67"));
        assertThatThrownBy(() -> approvals.sendBack(maren(), batch, " ", Map.of()))
                .hasMessageContaining("Say what should change");
        approvals.sendBack(maren(), batch, "", Map.of(claimOf(batch, FOUNDRY), "one of them was returned"));
        assertThat(subjects("ines")).containsExactly("Sent back: Test batch");
        assertThat(mailbox("ines").get(0)).contains("one of them was returned");
        JsonNode looks = JSON.readTree(Http.signedIn("ines")
                .get("/api/batches/" + batch.value() + "/looks")
                .body());
        assertThat(looks.get("notes").get(0).get("note").asString()).isEqualTo("one of them was returned");
        drafting.takeOut(ines(), batch, version(batch), Set.of(goes));
        sending.send(ines(), batch, version(batch));
        JsonNode again = asked(MAREN, batch);
        assertThat(again.get("compared").asBoolean()).isTrue();
        assertThat(again.get("claims")
                        .valueStream()
                        .map(c ->
                                c.get("payee").asString() + " " + c.get("since").asString()))
                .containsExactly(FOUNDRY + " CHANGED", "Pelorus Charts SAME");
        assertThat(again.get("claims").get(0).get("was").asString()).isEqualTo("136.28");
        assertThat(subjects("maren")).contains("Asked again: Test batch");
        withdrawing.withdraw(ines(), batch, version(batch));
        assertThat(subjects("maren")).contains("Approval voided: Test batch");
    }

    @Test
    void anEditVoidsWhatWasApprovedAndTellsWhoApproved() throws Exception {
        InvoiceId goes = invoice(FOUNDRY, "69.71");
        BatchId batch = sent(goes, invoice(FOUNDRY, "70.73"));
        App.approve(batch);
        emptyMailbox();
        drafting.takeOut(ines(), batch, version(batch), Set.of(goes));
        assertThat(state(batch)).isEqualTo(BatchState.DRAFT);
        assertThat(mailbox("maren")).singleElement().asString().contains("had approved it");
        sending.send(ines(), batch, version(batch));
        App.approve(batch);
        assertThat(App.number("SELECT COUNT(DISTINCT round) FROM approval WHERE batch_id = ?", batch.value()))
                .isEqualTo(2);
        withdrawing.withdraw(ines(), batch, version(batch));
    }

    @Test
    void remindsAsksTheSecondLineAndApprovesNothing() throws Exception {
        BatchId batch = sent(invoice(FOUNDRY, "71.79"));
        emptyMailbox();
        Instant sentAt = Instant.now();
        Reminders reminders = bean(Reminders.class);
        reminders.run(sentAt.plus(Duration.ofHours(23)));
        assertThat(stamps(batch)).isEqualTo("- -");
        reminders.run(sentAt.plus(Duration.ofHours(25)));
        assertThat(stamps(batch)).isEqualTo("reminded -");
        reminders.run(sentAt.plus(Duration.ofHours(26)));
        assertThat(subjects("maren").stream().filter("Reminder: Test batch"::equals))
                .hasSize(1);
        assertThatThrownBy(() -> approve(ruth(), batch)).hasMessageContaining("waits for others");
        reminders.run(sentAt.plus(Duration.ofHours(49)));
        assertThat(stamps(batch)).isEqualTo("reminded escalated");
        assertThat(subjects("ruth")).contains("Asked, as nobody answered: Test batch");
        assertThat(state(batch)).isEqualTo(BatchState.IN_APPROVAL);
        approve(ruth(), batch);
        assertThat(state(batch)).isEqualTo(BatchState.APPROVED);
        withdrawing.withdraw(ines(), batch, version(batch));
    }

    private static String stamps(BatchId batch) {
        return App.jdbc()
                .sql(
                        "SELECT CONCAT(IF(reminded_at IS NULL, '-', 'reminded'), ' ',"
                                + " IF(escalated_at IS NULL, '-', 'escalated')) FROM approval_step WHERE batch_id = ? AND step = 1")
                .param(batch.value())
                .query(String.class)
                .single();
    }

    /** As if proposed and confirmed by a second person in time to be in force today. */
    private static void routesOfToday(Http ruth, String note, String content) {
        Http.Answer proposed = ruth.post(
                "/api/routes", "{\"from\": \"2026-11-13\", \"note\": \"" + note + "\", \"content\": " + content + "}");
        assertThat(proposed.status()).as(proposed.body()).isEqualTo(200);
        App.asRoot("UPDATE approval_policy SET in_force_from = '2026-11-12', confirmed_on = '2026-11-11',"
                + " confirmed_at = NOW(), confirmed_by = (SELECT id FROM person WHERE sign_in = 'joss')"
                + " WHERE confirmed_by IS NULL");
    }

    /** Routes are proposed by one, confirmed by another, and in force from the next day at the earliest. */
    @Test
    void routesTakeTwoPeopleAndANight() {
        Http ruth = Http.signedIn("ruth");
        JsonNode content =
                JSON.readTree(ruth.get("/api/routes").body()).get("kept").get(0).get("content");
        ruth.post("/api/routes", "{\"from\": \"2026-11-20\", \"note\": \"two\", \"content\": " + content + "}");
        JsonNode proposed =
                JSON.readTree(ruth.get("/api/routes").body()).get("kept").get(0);
        assertThat(proposed.get("state").asString()).isEqualTo("PROPOSED");
        String confirm = "/api/routes/" + proposed.get("id").asLong() + "/confirm";
        assertThat(ruth.post(confirm, "{}").body()).contains("second-person");
        assertThat(Http.signedIn("joss").post(confirm, "{}").status()).isEqualTo(200);
        assertThat(JSON.readTree(ruth.get("/api/routes").body())
                        .get("kept")
                        .get(0)
                        .get("state")
                        .asString())
                .isEqualTo("LATER");
    }

    /** Whoever entered, brought in or released an invoice of a batch prepared it, too (law L7). */
    @Test
    void everyHandOnAnInvoiceIsAHandInItsBatch() {
        InvoiceId invoice = invoice(FOUNDRY, "74.11");
        Holds holds = bean(Holds.class);
        holds.hold(App.tomas(), invoice, "short delivery");
        holds.hold(ines(), invoice, "wrong price, too");
        assertThatThrownBy(() -> holds.release(ines(), invoice, "settled")).hasMessageContaining("Only whoever set");
        holds.release(ruth(), invoice, "the rest came");
        BatchId batch = sent(invoice);
        assertThat(bean(leveltally.server.batches.Batches.class).hands(batch))
                .contains(ines().person(), ruth().person());
        assertThatThrownBy(() -> approvals.approve(ruth(), batch, approvals.seen(batch)))
                .hasMessageContaining("entered, brought in or released an invoice");
        assertThatThrownBy(() -> App.jdbc()
                        .sql(
                                "INSERT INTO approval (id, batch_id, round, step, person_id, on_behalf_of, outcome, reason, at,"
                                        + " business_date) VALUES (-1, ?, 0, 1, ?, ?, 'APPROVED', '', NOW(), '2026-11-12')")
                        .params(
                                batch.value(),
                                ruth().person().value(),
                                ruth().person().value())
                        .update())
                .hasMessageContaining("L7: nobody approves what they prepared");
        approvals.approve(maren(), batch, approvals.seen(batch));
        holds.hold(ines(), invoice, "once more");
        assertThatThrownBy(() ->
                        holds.release(App.actor("maren", leveltally.core.people.Role.CONTROLLER), invoice, "fine"))
                .hasMessageContaining("You approved the payment");
        holds.release(ines(), invoice, "fine");
        withdrawing.withdraw(ines(), batch, version(batch));
    }

    @Test
    void aChangedPolicyNeverTouchesABatchUnderWay() {
        Http ruth = Http.signedIn("ruth");
        JsonNode before =
                JSON.readTree(ruth.get("/api/routes").body()).get("kept").get(0).get("content");
        String strict = """
                {"routes": [{"name": "All", "accounts": [], "totalOver": [], "paymentOver": [], "marks": [], "steps": [
                  {"name": "Three", "people": [], "role": "APPROVER", "needed": 3, "remindAfterHours": 0,
                   "escalateAfterHours": 0, "secondLine": []}]}]}
                """;
        assertThat(ruth.post("/api/routes/check", strict).body()).contains("can never be completed");
        BatchId batch = sent(invoice(FOUNDRY, "72.83"));
        routesOfToday(ruth, "try", strict);
        BatchId late = App.draft(invoice(FOUNDRY, "73.89"));
        try {
            assertThatThrownBy(() -> sending.send(ines(), late, version(late)))
                    .hasMessageContaining("“All” cannot be completed");
            App.approve(batch);
            assertThat(state(batch)).isEqualTo(BatchState.APPROVED);
        } finally {
            routesOfToday(ruth, "back", before.toString());
        }
        assertThat(ruth.post("/api/routes", "{\"from\": \"2026-11-12\", \"note\": \"x\", \"content\": " + before + "}")
                        .body())
                .contains("past-date");
        sending.send(ines(), late, version(late));
        for (BatchId one : List.of(batch, late)) {
            withdrawing.withdraw(ines(), one, version(one));
        }
    }

    @Test
    void theTryOutSaysWhichRouteAndWhy() {
        Http ruth = Http.signedIn("ruth");
        JsonNode content =
                JSON.readTree(ruth.get("/api/routes").body()).get("kept").get(0).get("content");
        String asking = "{\"content\": " + content + ", \"account\": "
                + App.operations().value()
                + ", \"total\": \"20,000.00\", \"largest\": \"9999.99\", \"marks\": [\"ONE_TIME\"]}";
        JsonNode tried = JSON.readTree(ruth.post("/api/routes/try", asking).body());
        assertThat(tried.get("route").get("route").asString()).isEqualTo("Two approvers at once");
        assertThat(tried.get("route").get("why").asString()).isEqualTo("a payment is marked: one-time payee");
        assertThat(tried.get("route").get("considered")).hasSize(3);
    }

    @Test
    void theMarksOfADraftAreAnsweredAndTravelAlong() {
        String reference = "T-MARK-7123";
        InvoiceId one = named(reference, "74.97");
        InvoiceId other = named("T-MARK-7132", "74.97");
        BatchId batch = App.draft(one);
        Http clerk = Http.signedIn("ines");
        JsonNode mark = JSON.readTree(
                        clerk.get("/api/batches/" + batch.value() + "/looks").body())
                .get("marks")
                .get(0)
                .get("marks")
                .get(0);
        assertThat(mark.get("reason").asString()).contains("two neighbouring characters swapped");
        assertThat(mark.get("facts").get(0).get("invoice").asLong()).isEqualTo(other.value());
        String key = mark.get("key").asString();
        assertThat(clerk.post(
                                "/api/batches/" + batch.value() + "/marks",
                                "{\"key\": \"" + key + "\", \"note\": \"two deliveries, I called them\"}")
                        .status())
                .isEqualTo(200);
        sending.send(ines(), batch, version(batch));
        JsonNode asked = asked(MAREN, batch).get("claims").get(0).get("marks").get(0);
        assertThat(asked.get("answer").asString()).isEqualTo("two deliveries, I called them");
        assertThat(asked.get("answeredBy").asString()).isEqualTo("Ines Okafor");
        withdrawing.withdraw(ines(), batch, version(batch));
    }

    private static InvoiceId named(String reference, String amount) {
        InvoiceId id = invoice(FOUNDRY, amount);
        App.asRoot("UPDATE invoice SET reference = '" + reference + "' WHERE id = " + id.value());
        return id;
    }

    @Test
    void rejectsDeputiesWhoMayNotApproveAndDaysThatAreOver() {
        assertThatThrownBy(
                        () -> bean(Deputies.class).name(aldo(), aldo().person(), ines().person(), App.TODAY, App.TODAY))
                .hasMessageContaining("may not approve");
        assertThatThrownBy(() ->
                        bean(Deputies.class).name(aldo(), maren().person(), ruth().person(), App.TODAY, App.TODAY))
                .hasMessageContaining("for yourself");
        assertThatThrownBy(() -> bean(Deputies.class)
                        .name(aldo(), aldo().person(), ruth().person(), App.TODAY, App.TODAY.minusDays(1)))
                .hasMessageContaining("before the first");
    }
}
