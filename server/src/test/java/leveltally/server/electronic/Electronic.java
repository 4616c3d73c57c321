package leveltally.server.electronic;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.number;
import static leveltally.server.App.ruth;
import static leveltally.server.App.tomas;

import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.electronic.AchAgreement;
import leveltally.core.electronic.AchSender;
import leveltally.core.electronic.EntryClass;
import leveltally.core.electronic.FileAgreement;
import leveltally.core.electronic.TransferAgreement;
import leveltally.core.electronic.TransferSender.Charges;
import leveltally.core.electronic.TransferSender.Message;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.people.Role;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.App;
import leveltally.server.approval.Sending;
import leveltally.server.batches.Making;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.selection.DueQuestion;
import leveltally.server.vendors.ChangeViews;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.VendorChanges;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;

/** Short ways to payments by file. */
public final class Electronic {
    private static int count = 1;

    private Electronic() {}

    public static Actor joss() {
        return App.actor("joss", Role.ADMINISTRATOR);
    }

    public static AchAgreement ach(EntryClass entryClass) {
        RoutingNumber bank = new RoutingNumber("990044105");
        return new AchAgreement(
                new AchSender(
                        bank,
                        "SKERROW TRUST",
                        // one of its own, so that no other test takes the letters of its day
                        "19944" + (10_000 + count++),
                        "MARROW BAY FERRIES",
                        "MARROW BAY",
                        "1994400117",
                        "INVOICES",
                        bank,
                        null),
                false,
                entryClass);
    }

    public static TransferAgreement transfers() {
        return new TransferAgreement(Message.PAIN_001_09, "Marrow Bay Ferries", "994400117", Charges.SLEV, true);
    }

    public static ElectronicWays.WantedFiles wanted(FileAgreement agreement) {
        return limited(agreement, "", "", "", false);
    }

    public static ElectronicWays.WantedFiles limited(
            FileAgreement agreement, String perPayment, String perFile, String perDay, boolean splits) {
        return new ElectronicWays.WantedFiles(
                agreement, "", "", perPayment, perFile, perDay, splits, "23:59", 0, "T" + count++, 1000, 0);
    }

    /** A way of its own from the account of USD. */
    public static WayId way(ElectronicWays.WantedFiles files) {
        BankAccountId account = App.operations();
        WayId way = bean(BankAccountSetup.class)
                .addWay(
                        joss(),
                        account,
                        new BankAccountSetup.WantedWay(
                                "Files " + count++, files.agreement().method(), false));
        bean(ElectronicWays.class).set(joss(), account, way, files);
        return way;
    }

    /** A vendor of its own that is paid so. */
    public static String vendor(PaymentMethod method, @Nullable BankDetails bank) {
        return vendor(method, "USD", bank);
    }

    public static String vendor(PaymentMethod method, String currency, @Nullable BankDetails bank) {
        String name = "Filed Works " + count++;
        VendorId id = bean(Vendors.class)
                .add(
                        tomas(),
                        new Vendor(
                                new VendorId(0),
                                "FW" + count,
                                name,
                                "Office",
                                5,
                                method,
                                Currency.getInstance(currency),
                                Terms.net(30),
                                null,
                                false),
                        new RemitTo(name, List.of(count + " File Lane", "Skerrow 4" + count)),
                        "4" + count,
                        bank);
        confirm(id, bank);
        return name;
    }

    public static void confirm(VendorId vendor, @Nullable BankDetails bank) {
        bean(ChangeViews.class).waiting().stream()
                .filter(change -> change.vendor() == vendor.value())
                .forEach(change -> bean(VendorChanges.class).confirm(ruth(), change.id(), bank));
    }

    public static BankDetails account() {
        return BankDetails.typed("990073053", "4400" + count++ + "77", count % 2 == 0, "");
    }

    /** An approved batch of these invoices by a way. */
    public static BatchId approved(WayId way, InvoiceId... invoices) {
        return approved(way, App.CHECK_DATE, invoices);
    }

    /** The same, dated today. */
    public static BatchId approvedToday(WayId way, InvoiceId... invoices) {
        return approved(way, App.TODAY, invoices);
    }

    /** The same, dated on a day. */
    public static BatchId approvedOn(WayId way, LocalDate day, InvoiceId... invoices) {
        return approved(way, day, invoices);
    }

    private static BatchId approved(WayId way, LocalDate checkDate, InvoiceId... invoices) {
        BatchId batch = draft(way, checkDate, invoices);
        bean(Sending.class).send(ines(), batch, App.version(batch));
        App.approve(batch);
        return batch;
    }

    /** A draft of these invoices by a way. */
    public static BatchId draft(WayId way, InvoiceId... invoices) {
        return draft(way, App.CHECK_DATE, invoices);
    }

    private static BatchId draft(WayId way, LocalDate checkDate, InvoiceId... invoices) {
        DueQuestion asked = DueQuestion.of(App.operations().value(), checkDate.toString(), "2000-01-01", null)
                .by(way)
                .marked(
                        null,
                        List.of(invoices).stream()
                                .map(id -> String.valueOf(id.value()))
                                .collect(Collectors.joining(".")));
        return bean(Making.class).make(ines(), App.batch("Filed batch", asked));
    }

    /** The file that carries the payments of a batch, where one does. */
    public static long file(BatchId batch) {
        return number(
                "SELECT MAX(i.file_id) FROM electronic_item i JOIN payment p ON p.id = i.payment_id WHERE p.batch_id = ?",
                batch.value());
    }
}
