package leveltally.server.wires;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.jdbc;
import static leveltally.server.App.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.WayId;
import leveltally.core.payments.PaymentId;
import leveltally.core.proof.LevelStrip;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.App;
import leveltally.server.batches.Batches;
import leveltally.server.electronic.Electronic;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.posting.Posting;
import leveltally.server.proof.Levels;
import leveltally.server.proof.Proof;
import leveltally.server.vendors.Vendors;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import leveltally.server.wires.WiresView.Step;
import leveltally.server.wires.WiresView.WireField;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessException;

/** Wires ordered from a list: each confirmed with what the bank said, nothing posted unconfirmed. */
class WireTest {
    private static int count = 1;

    @AfterEach
    void everyLawHolds() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static WayId way() {
        return bean(BankAccountSetup.class)
                .addWay(
                        Electronic.joss(),
                        App.operations(),
                        new BankAccountSetup.WantedWay("Wires by list " + count++, PaymentMethod.WIRE, false));
    }

    private static BatchId approved(WayId way, String... vendors) {
        List<InvoiceId> invoices = new ArrayList<>();
        for (String vendor : vendors) {
            invoices.add(App.invoice(vendor, (100 + count++) + ".25"));
        }
        return Electronic.approvedToday(way, invoices.toArray(InvoiceId[]::new));
    }

    private static String vendor(BankDetails bank) {
        return Electronic.vendor(PaymentMethod.WIRE, bank);
    }

    private static List<WiresView.WireLine> lines(BatchId batch) {
        return bean(WireViews.class).of(ines(), batch).payments();
    }

    private static List<PaymentId> listed(BatchId batch) {
        bean(WireLists.class).list(ines(), batch);
        return lines(batch).stream().map(line -> new PaymentId(line.payment())).toList();
    }

    private static void confirm(PaymentId wire, String reference, String fee) {
        bean(WireLists.class).confirm(ines(), wire, new WireLists.Typed(reference, fee, App.TODAY));
    }

    private static String fresh() {
        return "FT " + System.nanoTime() % 10_000_000 + "-" + count++;
    }

    @Test
    void aWireGoesFromTheListToTheLedgerAndBack() throws Exception {
        BankDetails bank = Electronic.account();
        BatchId batch = approved(way(), vendor(bank), vendor(bank));
        assertThat(lines(batch)).extracting(WiresView.WireLine::step).containsOnly(Step.WAITS);
        assertThatThrownBy(() -> bean(Posting.class).post(ines(), batch))
                .hasMessageContaining("onto the list of wires");
        List<PaymentId> wires = listed(batch);
        assertThat(bean(Batches.class).get(batch).state()).isEqualTo(BatchState.FILED);
        assertThatThrownBy(() -> bean(WireLists.class).list(ines(), batch))
                .hasMessageContaining("stands on the list already");
        // whole account numbers are opened one by one, and that is recorded
        List<WireField> fields = bean(WireViews.class).open(ines(), wires.get(0));
        assertThat(fields).extracting(WireField::value).contains(bank.account(), bank.routing());
        assertThat(number(
                        "SELECT COUNT(*) FROM audit_record WHERE deed = 'open a wire' AND subject = ?",
                        "payment " + wires.get(0).value()))
                .isEqualTo(1);
        try (var pdf = Loader.loadPDF(bean(WireViews.class).list(ines(), batch))) {
            assertThat(new PDFTextStripper().getText(pdf)).contains(bank.account(), "2 wires");
        }
        assertThatThrownBy(() -> bean(Posting.class).post(ines(), batch)).hasMessageContaining("confirmed no wire");
        String reference = fresh();
        confirm(wires.get(0), reference.toLowerCase(), "12.50");
        assertThat(bean(Levels.class).of(batch).tallies())
                .filteredOn(tally -> tally.step() == LevelStrip.Step.ORDERED)
                .singleElement()
                .satisfies(tally -> assertThat(tally.count()).isEqualTo(1));
        Posting.Outcome outcome = bean(Posting.class).post(ines(), batch);
        assertThat(outcome.postedNow()).isEqualTo(1);
        assertThat(outcome.waiting()).isEqualTo(1);
        assertThat(lines(batch)).extracting(WiresView.WireLine::step).containsExactly(Step.POSTED, Step.LISTED);
        // what is in the ledger stands
        assertThatThrownBy(() -> confirm(wires.get(0), fresh(), ""))
                .hasMessageContaining("what the bank said of it stands");
        confirm(wires.get(1), fresh(), "");
        String corrected = fresh();
        confirm(wires.get(1), corrected, "7.00");
        assertThat(bean(Posting.class).post(ines(), batch).waiting()).isZero();
        assertThat(bean(WireViews.class).of(ines(), batch).fees()).isEqualTo("19.50");
        assertThat(bean(Undoing.class)
                        .undo(
                                ines(),
                                new Wanted(
                                        List.of(new Wanted.One(wires.get(1).value(), List.of())),
                                        App.TODAY,
                                        Wanted.Fate.OPEN,
                                        null,
                                        "RET 7"),
                                "account closed")
                        .waits())
                .isFalse();
        assertThat(lines(batch)).extracting(WiresView.WireLine::step).containsExactly(Step.POSTED, Step.UNDONE);
    }

    @Test
    void whatTheBankHasNotSentIsTakenOutAndWhatItSentIsNot() {
        BatchId batch = approved(way(), vendor(Electronic.account()), vendor(Electronic.account()));
        List<PaymentId> wires = listed(batch);
        confirm(wires.get(0), fresh(), "");
        List<WiresView.WireLine> lines = lines(batch);
        assertThatThrownBy(() -> bean(WireLists.class)
                        .takeOut(ines(), batch, Set.of(new ClaimId(lines.get(0).claim())), "changed our mind"))
                .hasMessageContaining("was sent by the bank");
        bean(WireLists.class)
                .takeOut(ines(), batch, Set.of(new ClaimId(lines.get(1).claim())), "changed our mind");
        bean(Posting.class).post(ines(), batch);
        assertThat(bean(Batches.class).get(batch).state()).isEqualTo(BatchState.POSTED);
    }

    @Test
    void aHeldVendorStaysBehind() {
        String held = vendor(Electronic.account());
        BatchId batch = approved(way(), held, vendor(Electronic.account()));
        bean(Vendors.class).hold(ines(), App.vendor(held), "ask first");
        assertThat(bean(WireLists.class).list(ines(), batch)).isEqualTo(1);
        assertThat(lines(batch))
                .filteredOn(line -> line.payee().equals(held))
                .singleElement()
                .satisfies(line -> {
                    assertThat(line.step()).isEqualTo(Step.KEPT_BACK);
                    assertThat(line.why()).contains("the vendor is held, ask first");
                });
    }

    @Test
    void ofTwoWiresOneCarriesAReferenceOfTheBank() throws Exception {
        BatchId batch = approved(way(), vendor(Electronic.account()), vendor(Electronic.account()));
        List<PaymentId> wires = listed(batch);
        String reference = fresh();
        var pool = Executors.newFixedThreadPool(2);
        try {
            List<Boolean> went = new ArrayList<>();
            List<Callable<Boolean>> both = wires.stream()
                    .map(wire -> (Callable<Boolean>) () -> {
                        try {
                            confirm(wire, reference, "");
                            return true;
                        } catch (Refusal used) {
                            assertThat(used.sentence()).contains("carries " + reference + " already");
                            return false;
                        }
                    })
                    .toList();
            for (Future<Boolean> one : pool.invokeAll(both)) {
                went.add(one.get());
            }
            assertThat(went).containsExactlyInAnyOrder(true, false);
        } finally {
            pool.shutdown();
        }
    }

    @Test
    void theDatabaseRefusesWhatWasNotConfirmed() {
        BatchId batch = approved(way(), vendor(Electronic.account()));
        PaymentId wire = listed(batch).get(0);
        long entry = number("SELECT MIN(id) FROM journal_entry");
        assertThatThrownBy(
                        () -> jdbc().sql("UPDATE payment SET state = 'OUTSTANDING', posted_entry_id = ? WHERE id = ?")
                                .params(entry, wire.value())
                                .update())
                .isInstanceOf(DataAccessException.class)
                .hasMessageContaining("no bank confirmed this wire");
        assertThatThrownBy(() -> jdbc().sql("UPDATE wire_order SET amount_minor = 1 WHERE payment_id = ?")
                        .param(wire.value())
                        .update())
                .isInstanceOf(DataAccessException.class);
        // a check's payment is on no list of wires
        long check = number("SELECT MIN(payment_id) FROM check_number WHERE payment_id IS NOT NULL");
        assertThatThrownBy(() -> jdbc().sql(
                                "INSERT INTO wire_order (payment_id, way_id, reference, called, currency, amount_minor, listed_at, listed_by)"
                                        + " SELECT p.id, b.way_id, 1, 'W1', p.currency, p.amount_minor, NOW(6), 1 FROM payment p"
                                        + " JOIN batch b ON b.id = p.batch_id WHERE p.id = ?")
                        .param(check)
                        .update())
                .isInstanceOf(DataAccessException.class)
                .hasMessageContaining("no wire of this way");
    }
}
