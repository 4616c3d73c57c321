package leveltally.server.paper;

import static leveltally.server.App.bean;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.Currency;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchId;
import leveltally.core.checks.SeriesId;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.StandardLayouts;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.App;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Withdrawing;
import leveltally.server.checks.Series;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.vendors.ChangeViews;
import leveltally.server.vendors.ToldChange;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.VendorChanges;
import leveltally.server.vendors.Vendors;
import org.junit.jupiter.api.Test;

/** What a layout has to hold is what any layout can. */
class SampleChecksTest {
    /** Nothing read lately. */
    private static SampleChecks fresh() {
        return new SampleChecks(
                App.jdbc(),
                bean(ClaimRows.class),
                bean(BankAccounts.class),
                bean(CheckPages.class),
                bean(Typefaces.class));
    }

    @Test
    void aPayeeThatNoLayoutHoldsKeepsNoneFromBeingMade() {
        String name = "☃ " + "M".repeat(118);
        bean(Vendors.class)
                .add(
                        App.ines(),
                        new Vendor(
                                new VendorId(0),
                                "V9998",
                                name,
                                "Office",
                                5,
                                PaymentMethod.CHECK,
                                Currency.getInstance("USD"),
                                Terms.net(30),
                                null,
                                false),
                        new RemitTo(name, List.of("1 Pole Road")),
                        "98",
                        null);
        bean(VendorChanges.class)
                .confirmAll(
                        App.ruth(),
                        bean(ChangeViews.class).waiting().stream()
                                .filter(change -> change.vendorName().equals(name))
                                .map(ToldChange::id)
                                .toList());
        BatchId batch = App.draft(App.invoice(name, "12.00"));
        var series = bean(Series.class).get(new SeriesId(App.series()));
        Map<SampleChecks.Sample, CheckText> samples = fresh().of(series);
        assertThat(samples.values()).extracting(CheckText::payee).doesNotContain(name);
        assertThat(fresh().findings(series, StandardLayouts.LETTER)).isEmpty();
        bean(Withdrawing.class).withdraw(App.ines(), batch, App.version(batch));
    }
}
