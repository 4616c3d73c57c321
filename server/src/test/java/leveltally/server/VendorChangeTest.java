package leveltally.server;

import static leveltally.server.App.aldo;
import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.maren;
import static leveltally.server.App.ruth;
import static leveltally.server.App.tomas;
import static leveltally.server.App.version;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.batches.BatchId;
import leveltally.core.people.Actor;
import leveltally.core.people.Role;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.VendorId;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Withdrawing;
import leveltally.server.proof.Proof;
import leveltally.server.vendors.ChangeViews;
import leveltally.server.vendors.ToldChange;
import leveltally.server.vendors.VendorChanges;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Addresses and bank details change by two people, and payments that were asked with the old ones are refused by name. */
class VendorChangeTest {
    private static final String ACCOUNT = "330019204417";
    private final VendorChanges changes = bean(VendorChanges.class);
    private final Approvals approvals = bean(Approvals.class);
    private final Sending sending = bean(Sending.class);

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().isClean()).isTrue();
    }

    private static long remitTo(String vendor) {
        return App.number(
                "SELECT MIN(id) FROM remit_to WHERE vendor_id = ?",
                App.vendor(vendor).value());
    }

    private static VendorChanges.Wanted bank(String vendor, String account) {
        Map<String, Object> now = App.jdbc()
                .sql("SELECT payee, address, postal_code FROM remit_to WHERE id = ?")
                .param(remitTo(vendor))
                .query()
                .singleRow();
        return new VendorChanges.Wanted(
                remitTo(vendor),
                String.valueOf(now.get("payee")),
                List.of(String.valueOf(now.get("address")).split("\n")),
                String.valueOf(now.get("postal_code")),
                false,
                BankDetails.typed("990044105", account),
                "a call to their known number");
    }

    private static final BankDetails TYPED = BankDetails.typed("990044105", ACCOUNT);

    private long proposed(String vendor, String account) {
        return changes.propose(tomas(), App.vendor(vendor), bank(vendor, account));
    }

    @Test
    void oneProposesAnotherConfirmsAndNobodyBoth() {
        String vendor = "Plover Packaging";
        long change = proposed(vendor, ACCOUNT);
        assertThat(App.number("SELECT COUNT(*) FROM remit_to WHERE id = ? AND bank_key <> ''", remitTo(vendor)))
                .isZero();
        Actor both = new Actor(
                tomas().person(), "Tomas", Set.of(Role.CLERK, Role.CONTROLLER), App.TODAY, Instant.now(), "test");
        assertThatThrownBy(() -> changes.confirm(both, change, TYPED)).hasMessageContaining("You proposed this change");
        assertThatThrownBy(() -> changes.confirm(ines(), change, TYPED))
                .hasMessageContaining("needs the role controller");
        assertThatThrownBy(() -> changes.takeBack(ines(), change)).hasMessageContaining("Somebody else proposed");
        assertThatThrownBy(() -> proposed(vendor, "770031")).hasMessageContaining("waits already");
        // the second types the account again, unseen, and both must agree
        assertThatThrownBy(() -> changes.confirm(ruth(), change, null)).hasMessageContaining("Type the account number");
        assertThatThrownBy(() -> changes.confirm(ruth(), change, BankDetails.typed("990044105", "770031004416")))
                .hasMessageContaining("not the account that was proposed");
        assertThatThrownBy(() -> changes.confirmAll(ruth(), List.of(change))).hasMessageContaining("one by one");
        changes.confirm(ruth(), change, TYPED);
        assertThatThrownBy(() -> changes.confirm(ruth(), change, TYPED)).hasMessageContaining("does not wait any more");
        assertThatThrownBy(() -> proposed(vendor, ACCOUNT)).hasMessageContaining("has already");
        ToldChange told = bean(ChangeViews.class).of(App.vendor(vendor)).get(0);
        assertThat(told.afterBank()).isEqualTo("routing 990044105, account ••••4417");
        assertThat(told.before().get(0)).isEqualTo(vendor);
        // sealed in the database, and equal numbers are known by their keyed hash alone
        String sealed = App.jdbc()
                .sql("SELECT CONCAT(bank_details_sealed, bank_key, bank_mask) FROM remit_to WHERE id = ?")
                .param(remitTo(vendor))
                .query(String.class)
                .single();
        assertThat(sealed).doesNotContain(ACCOUNT).hasSizeGreaterThan(128);
        long same = proposed("Ebb Tide Linen", ACCOUNT);
        assertThat(App.number(
                        "SELECT COUNT(DISTINCT after_bank_key) FROM vendor_change WHERE id IN (?, ?)", change, same))
                .isOne();
        changes.refuse(ruth(), same, "it is the account of Plover Packaging");
        assertThat(bean(ChangeViews.class)
                        .of(App.vendor("Ebb Tide Linen"))
                        .get(0)
                        .decidedWhy())
                .contains("Plover");
    }

    @Test
    void aPaymentAskedWithTheOldAccountIsRefusedByNameAndTheSeparationsHold() {
        String vendor = "Heron Street Stationers";
        BatchId batch = App.approved(App.invoice(vendor, "31.07"), App.invoice("Pelorus Charts", "31.13"));
        long change = proposed(vendor, "880200419");
        assertThat(changes.confirm(ruth(), change, BankDetails.typed("990044105", "880200419")))
                .contains("Test batch");
        assertThat(bean(leveltally.server.printing.WaitingClaims.class)
                        .of(batch, App.TODAY)
                        .behind()
                        .values())
                .extracting(leveltally.server.printing.Behind::why)
                .singleElement()
                .asString()
                .contains(vendor + ": its bank details changed after the payment was sent");
        // taken out of the approval and sent again it is marked, and who changed the vendor does not approve
        bean(Drafting.class)
                .takeOut(
                        ines(),
                        batch,
                        version(batch),
                        Set.of(bean(leveltally.server.batches.ClaimRows.class).of(batch).stream()
                                .filter(claim -> claim.remitTo().payee().equals(vendor))
                                .findFirst()
                                .orElseThrow()
                                .lines()
                                .get(0)
                                .item()
                                .orElseThrow()));
        BatchId again = App.draft(App.invoice(vendor, "31.19"));
        Actor clerkToo = new Actor(
                maren().person(), "Maren", Set.of(Role.CLERK, Role.APPROVER), App.TODAY, Instant.now(), "test");
        assertThatThrownBy(() -> sending.send(clerkToo, again, version(again)))
                .hasMessageContaining("“Two approvers” stays short of people");
        sending.send(ines(), again, version(again));
        assertThat(App.number(
                        "SELECT COUNT(*) FROM approval_mark WHERE batch_id = ? AND kind = 'CHANGED_PAYEE'",
                        again.value()))
                .isOne();
        Actor controllerToo = new Actor(
                ruth().person(), "Ruth", Set.of(Role.CONTROLLER, Role.APPROVER), App.TODAY, Instant.now(), "test");
        assertThatThrownBy(() -> approvals.approve(controllerToo, again, approvals.seen(again)))
                .hasMessageContaining("a change of Heron Street Stationers in the last 30 days");
        approvals.approve(aldo(), again, approvals.seen(again));
        approvals.approve(maren(), again, approvals.seen(again));
        for (BatchId one : List.of(batch, again)) {
            bean(Withdrawing.class).withdraw(ines(), one, version(one));
        }
    }

    @Test
    void aNewAddressWaitsAndNothingIsPaidToItBefore() {
        VendorId vendor = App.vendor("Eider Down Bedding");
        long change = changes.propose(
                tomas(),
                vendor,
                new VendorChanges.Wanted(
                        null, "Eider Down Bedding", List.of("3 Loft Lane"), "41000", false, null, "their web page"));
        assertThatThrownBy(() -> changes.propose(
                        ines(),
                        vendor,
                        new VendorChanges.Wanted(
                                null,
                                "Eider Down Bedding",
                                List.of("3 Loft Lane"),
                                "41000",
                                false,
                                null,
                                "their web page")))
                .hasMessageContaining("waits for a second person already");
        long further = App.number("SELECT remit_to_id FROM vendor_change WHERE id = ?", change);
        assertThat(App.number("SELECT COUNT(*) FROM remit_to WHERE id = ? AND in_force", further))
                .isZero();
        changes.takeBack(tomas(), change);
        assertThat(App.number("SELECT COUNT(*) FROM remit_to WHERE id = ? AND in_force", further))
                .isZero();
    }

    @Test
    void rejectsWhatIsNoAccount() {
        assertThatThrownBy(() -> BankDetails.typed("990044104", "1234"))
                .hasMessageContaining("the last of them checks the others");
        Http ines = Http.signedIn("ines");
        String body =
                "{\"payee\": \"X\", \"lines\": [\"1 Quay\"], \"postalCode\": \"1\", \"bank\": \"NEW\", \"routing\":"
                        + " \"990044104\", \"bankAccount\": \"123456\", \"why\": \"a letter\"}";
        Http.Answer answer =
                ines.post("/api/vendors/" + App.vendor("Knot & Splice").value() + "/changes", body);
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.body()).contains("routing");
    }

    /** What the database refuses even to the application's own account. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "UPDATE remit_to SET address = '9 Elsewhere' ORDER BY id LIMIT 1",
                "UPDATE remit_to SET bank_key = 'x' ORDER BY id LIMIT 1",
                "INSERT INTO remit_to (id, vendor_id, payee, address, postal_code, in_force)"
                        + " SELECT -1, MIN(id), 'x', 'x', 'x', TRUE FROM vendor",
                "UPDATE vendor_change SET decided_by = proposed_by WHERE state = 'CONFIRMED' LIMIT 1",
                "UPDATE vendor_change SET state = 'CONFIRMED', decided_by = proposed_by WHERE state = 'PROPOSED' LIMIT 1",
                "UPDATE vendor_change SET after_payee = 'x' WHERE state = 'PROPOSED'",
                "DELETE FROM vendor_change"
            })
    void theDatabaseHoldsItItself(String sql) throws SQLException {
        try (Connection application = App.DATABASE.application()) {
            assertThatThrownBy(() -> application.createStatement().executeUpdate(sql))
                    .isInstanceOf(SQLException.class);
        }
    }
}
