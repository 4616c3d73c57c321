package leveltally.server;

import static leveltally.server.App.bean;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Currency;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.printing.Turn;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.batches.Withdrawing;
import leveltally.server.printing.Numbering;
import leveltally.server.printing.Turns;
import leveltally.server.vendors.ChangeViews;
import leveltally.server.vendors.ToldChange;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.VendorChanges;
import leveltally.server.vendors.Vendors;
import org.junit.jupiter.api.Test;

/** Nothing is taken for a check that cannot be drawn. */
class UnprintableTest {
    @Test
    void aCharacterTheTypefaceLacksIsFoundBeforeANumberIsTaken() {
        String name = "Snow ☃ Works";
        bean(Vendors.class)
                .add(
                        App.ines(),
                        new Vendor(
                                new VendorId(0),
                                "V9999",
                                name,
                                "Office",
                                5,
                                PaymentMethod.CHECK,
                                Currency.getInstance("USD"),
                                Terms.net(30),
                                null,
                                false),
                        new RemitTo(name, List.of("1 Pole Road")),
                        "99",
                        null);
        bean(VendorChanges.class)
                .confirmAll(
                        App.ruth(),
                        bean(ChangeViews.class).waiting().stream()
                                .filter(change -> change.vendorName().equals(name))
                                .map(ToldChange::id)
                                .toList());
        BatchId batch = App.approved(App.invoice(name, "12.00"));
        long next = App.nextNumber();
        Turn turn = bean(Turns.class).take(App.ines(), App.operations(), batch, "");
        assertThatThrownBy(() -> bean(Numbering.class).number(App.ines(), batch, turn.serial(), next, ""))
                .hasMessageContaining("no character “☃”");
        assertThat(App.nextNumber()).isEqualTo(next);
        bean(Turns.class).giveBack(App.ines(), App.operations(), turn.serial());
        bean(Withdrawing.class).withdraw(App.ines(), batch, App.version(batch));
    }
}
