package leveltally.server;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static leveltally.server.App.version;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Set;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.electronic.EntryClass;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.WayId;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorFacts;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Moving;
import leveltally.server.batches.Withdrawing;
import leveltally.server.electronic.Electronic;
import leveltally.server.proof.Proof;
import leveltally.server.vendors.VendorRecords;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** A vendor prefers one way and may allow others; a payment is moved from one to another by an edit. */
class MovingTest {
    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static void allows(String vendor, PaymentMethod... others) {
        VendorRecords.Kept kept = bean(VendorRecords.class).kept(App.vendor(vendor));
        VendorFacts was = kept.facts();
        bean(VendorRecords.class)
                .change(
                        ines(),
                        App.vendor(vendor),
                        new VendorFacts(
                                was.name(),
                                was.group(),
                                was.priority(),
                                was.method(),
                                was.terms(),
                                was.paperwork(),
                                was.reportable(),
                                Set.of(others)),
                        null,
                        kept.version());
    }

    private static ClaimId claim(BatchId batch) {
        return new ClaimId(number("SELECT MIN(id) FROM claim WHERE batch_id = ?", batch.value()));
    }

    private static WayId checks() {
        return new WayId(number(
                "SELECT id FROM way_to_pay WHERE bank_account_id = ? AND method = 'CHECK' AND NOT recorded_only",
                App.operations().value()));
    }

    private static String against(BatchId batch, WayId way) {
        return bean(Moving.class).ways(ines(), batch, claim(batch)).stream()
                .filter(one -> one.way() == way.value())
                .findFirst()
                .orElseThrow()
                .against();
    }

    @Test
    void aPaymentGoesToAnotherWayThatTheVendorAllowsAndTheWayReaches() {
        WayId ach = Electronic.way(Electronic.wanted(Electronic.ach(EntryClass.CCD)));
        String vendor = Electronic.vendor(PaymentMethod.CHECK, Electronic.account());
        InvoiceId invoice = App.invoice(vendor, "44.10");
        InvoiceId stays = App.invoice("Pelorus Charts", "9.90");
        BatchId batch = App.draft(invoice, stays);
        ClaimId moving = new ClaimId(number("SELECT claim_id FROM claim_line WHERE invoice_id = ?", invoice.value()));
        Moving.To to = new Moving.To(App.operations(), ach, null);
        assertThatThrownBy(() -> bean(Moving.class).move(ines(), batch, version(batch), moving, to))
                .hasMessageContaining("cannot be added: other method");
        assertThat(number("SELECT COUNT(*) FROM claim WHERE batch_id = ?", batch.value()))
                .as("nothing of a refused move stays")
                .isEqualTo(2);
        allows(vendor, PaymentMethod.ACH);
        BatchId other = bean(Moving.class).move(ines(), batch, version(batch), moving, to);
        assertThat(number("SELECT batch_id FROM reservation WHERE invoice_id = ?", invoice.value()))
                .isEqualTo(other.value());
        assertThat(number("SELECT COUNT(*) FROM claim WHERE batch_id = ?", batch.value()))
                .isEqualTo(1);
        // and back again, into the draft it came from
        bean(Moving.class)
                .move(ines(), other, version(other), claim(other), new Moving.To(App.operations(), checks(), batch));
        assertThat(number("SELECT batch_id FROM reservation WHERE invoice_id = ?", invoice.value()))
                .isEqualTo(batch.value());
        for (BatchId one : List.of(batch, other)) {
            bean(Withdrawing.class).withdraw(ines(), one, version(one));
        }
    }

    @Test
    void eachOtherWaySaysWhatIsAgainstIt() {
        WayId ach = Electronic.way(Electronic.wanted(Electronic.ach(EntryClass.CCD)));
        BatchId batch = App.draft(App.invoice("Pelorus Charts", "7.70"));
        assertThat(against(batch, ach)).contains("is not paid by ACH");
        allows("Pelorus Charts", PaymentMethod.ACH);
        assertThat(against(batch, ach)).startsWith("no bank details.");
        allows("Pelorus Charts");
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
    }

    @Test
    void byHandAnyAllowedWayWillDoAndGatheringTakesThePreferredOnly() {
        WayId ach = Electronic.way(Electronic.wanted(Electronic.ach(EntryClass.CCD)));
        String vendor = Electronic.vendor(PaymentMethod.CHECK, Electronic.account());
        String own = Electronic.vendor(PaymentMethod.ACH, Electronic.account());
        allows(vendor, PaymentMethod.ACH);
        InvoiceId invoice = App.invoice(vendor, "31.00");
        BatchId batch = Electronic.draft(ach, App.invoice(own, "30.00"));
        bean(Drafting.class).add(ines(), batch, version(batch), List.of(invoice));
        assertThat(number("SELECT batch_id FROM reservation WHERE invoice_id = ?", invoice.value()))
                .isEqualTo(batch.value());
        bean(Withdrawing.class).withdraw(ines(), batch, version(batch));
    }
}
