package leveltally.server.demo;

import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.direct.Rhythm;
import leveltally.core.direct.Schedule;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import leveltally.server.approval.Approvals;
import leveltally.server.batches.Batches;
import leveltally.server.direct.DirectPayments;
import leveltally.server.direct.DirectRow;
import leveltally.server.direct.Schedules;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.wires.WireLists;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/**
 * What the ferries pay without an invoice: again and again the lease of the ticket hall, berth dues, the linen of the cabins;
 * and two wires, one of which the bank confirmed.
 */
@Component
class DemoDirect {
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 12);

    private final Schedules schedules;
    private final DirectPayments direct;
    private final BankAccountSetup setup;
    private final Approvals approvals;
    private final Batches batches;
    private final WireLists wires;
    private final JdbcClient jdbc;

    DemoDirect(
            Schedules schedules,
            DirectPayments direct,
            BankAccountSetup setup,
            Approvals approvals,
            Batches batches,
            WireLists wires,
            JdbcClient jdbc) {
        this.schedules = schedules;
        this.direct = direct;
        this.setup = setup;
        this.approvals = approvals;
        this.batches = batches;
        this.wires = wires;
        this.jdbc = jdbc;
    }

    void tell(DemoCompany.Stage stage) {
        begin(stage.cast().on(TODAY, "tomas"));
        wire(stage);
    }

    /** A deposit ahead of its invoice, and a fee: on the list, the first confirmed. */
    private void wire(DemoCompany.Stage stage) {
        Actor clerk = stage.cast().on(TODAY, "ines");
        WayId way = setup.addWay(
                stage.cast().on(TODAY, "joss"),
                stage.operations(),
                new BankAccountSetup.WantedWay("Wires by list", PaymentMethod.WIRE, false));
        BatchId batch = direct.make(
                clerk,
                new DirectPayments.Wanted(
                        stage.operations(),
                        way,
                        TODAY,
                        "Deposits by wire",
                        "",
                        List.of(
                                new DirectRow("Halyard & Cleat Works", "ahead HC-2027", "", "7450.00", null, null),
                                new DirectRow("Marlinspike Data", "5500", "LICENCE 2027", "1280.00", null, null))),
                new DirectPayments.How(true, ""));
        for (String approver : List.of("maren", "aldo", "ruth")) {
            if (batches.get(batch).state() == BatchState.IN_APPROVAL) {
                approvals.approve(stage.cast().on(TODAY, approver), batch, approvals.seen(batch));
            }
        }
        wires.list(clerk, batch);
        PaymentId first = new PaymentId(id(
                "SELECT w.payment_id FROM wire_order w JOIN payment p ON p.id = w.payment_id WHERE p.payee = ?",
                "Halyard & Cleat Works"));
        wires.confirm(clerk, first, new WireLists.Typed("FT 2411-07", "18.00", TODAY));
    }

    private void begin(Actor clerk) {
        long hall = begin(
                clerk,
                "Ticket hall lease",
                "Skerrow Harbour Authority",
                "HALL {month}",
                "5400 1,500.00; 5500 350.00",
                "1850.00",
                Rhythm.MONTHLY,
                "2026-10-15",
                null);
        schedules.passOver(clerk, hall, LocalDate.parse("2026-10-15"), "paid with the deposit, by agreement");
        begin(
                clerk,
                "Berth dues, winter berth",
                "Skerrow Harbour Authority",
                "BERTH {month}",
                "5500",
                "2412.00",
                Rhythm.QUARTERLY,
                "2026-11-10",
                "2027-05-31");
        begin(
                clerk,
                "Cabin linen, flat rate",
                "Ebb Tide Linen",
                "LINEN {month}",
                "5400",
                "310.00",
                Rhythm.TWO_WEEKS,
                "2026-11-13",
                null);
    }

    private long begin(
            Actor clerk,
            String name,
            String vendor,
            String reference,
            String said,
            String amount,
            Rhythm rhythm,
            String first,
            @Nullable String until) {
        long account = id("SELECT id FROM bank_account WHERE name = ?", "Operations");
        return schedules.begin(
                clerk,
                new Schedules.Wanted(
                        new BankAccountId(account),
                        new WayId(id(
                                "SELECT id FROM way_to_pay WHERE method = 'CHECK' AND NOT recorded_only AND bank_account_id = ?",
                                account)),
                        new VendorId(id("SELECT id FROM vendor WHERE name = ?", vendor)),
                        new Schedule(
                                name,
                                reference,
                                said,
                                Money.parse(amount, Currency.getInstance("USD")),
                                rhythm,
                                LocalDate.parse(first),
                                until == null ? null : LocalDate.parse(until))));
    }

    private long id(String sql, Object param) {
        return jdbc.sql(sql).param(param).query(Long.class).single();
    }
}
