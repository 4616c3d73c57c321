package leveltally.server.demo;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.marks.MarkKind;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.VendorId;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Deputies;
import leveltally.server.approval.Policies;
import leveltally.server.approval.PolicyContent;
import leveltally.server.approval.PolicyContent.LimitContent;
import leveltally.server.approval.PolicyContent.RouteContent;
import leveltally.server.approval.PolicyContent.StepContent;
import leveltally.server.approval.Sending;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Drafting;
import leveltally.server.marks.MarkAnswers;
import leveltally.server.vendors.VendorChanges;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The approval side of the made-up company: its routes, what waits on its approvers' desks, and who stands in. */
@Component
class DemoApproval {
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 12);

    private final Policies policies;
    private final Approvals approvals;
    private final Sending sending;
    private final Deputies deputies;
    private final VendorChanges changes;
    private final MarkAnswers answers;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Drafting drafting;
    private final JdbcClient jdbc;

    DemoApproval(
            Policies policies,
            Approvals approvals,
            Sending sending,
            Deputies deputies,
            VendorChanges changes,
            MarkAnswers answers,
            Batches batches,
            ClaimRows claimRows,
            Drafting drafting,
            JdbcClient jdbc) {
        this.policies = policies;
        this.approvals = approvals;
        this.sending = sending;
        this.deputies = deputies;
        this.changes = changes;
        this.answers = answers;
        this.batches = batches;
        this.claimRows = claimRows;
        this.drafting = drafting;
        this.jdbc = jdbc;
    }

    void keepRoutes(DemoCompany.Stage stage) {
        LocalDate first = DemoCompany.FIRST.atDay(1);
        long ruth = id(stage, "ruth").value();
        List<Long> all = List.of(id(stage, "maren").value(), id(stage, "aldo").value(), ruth);
        StepContent approval = new StepContent("Approval", Role.APPROVER, List.of(), 1, 24, 48, List.of(ruth));
        StepContent second = new StepContent("Second approval", null, all, 1, 24, 0, List.of());
        StepContent two = new StepContent("Two approvers", Role.APPROVER, List.of(), 2, 8, 24, List.of(ruth));
        long routes = policies.propose(
                stage.cast().on(first, "ruth"),
                first.plusDays(1),
                "as agreed with the auditors for the new year",
                new PolicyContent(List.of(
                        new RouteContent("One approval", List.of(), List.of(), List.of(), List.of(), List.of(approval)),
                        new RouteContent(
                                "Two approvals, one after the other",
                                List.of(),
                                limits("60000.00", "50000.00"),
                                limits("10000.00", "8000.00"),
                                List.of(MarkKind.DUPLICATE, MarkKind.FAR_ABOVE, MarkKind.JUST_UNDER),
                                List.of(approval, second)),
                        new RouteContent(
                                "Two approvers at once",
                                List.of(),
                                limits("150000.00", "120000.00"),
                                List.of(),
                                List.of(MarkKind.CHANGED_PAYEE, MarkKind.ONE_TIME),
                                List.of(two)))));
        policies.confirm(stage.cast().on(first, "joss"), routes);
    }

    private static List<LimitContent> limits(String usd, String eur) {
        return List.of(new LimitContent("USD", usd), new LimitContent("EUR", eur));
    }

    /**
     * What waits today.
     *
     * @param crew goes back once and is sent again, so that there is something to compare
     * @param accounting has its first approval and waits for the second
     */
    void tell(DemoCompany.Stage stage, BatchId crew, BatchId accounting) {
        newBankDetails(stage);
        sendBackOnce(stage, crew);
        sending.send(
                stage.cast().on(TODAY, "ines"),
                accounting,
                batches.get(accounting).version());
        approvals.approve(stage.cast().on(TODAY, "maren"), accounting, approvals.seen(accounting));
        deputies.name(
                stage.cast().on(TODAY, "ruth"),
                id(stage, "ruth"),
                id(stage, "maren"),
                TODAY,
                LocalDate.of(2026, 11, 20));
    }

    /** One vendor's bank details changed last week; another's move waits for a second person. */
    private void newBankDetails(DemoCompany.Stage stage) {
        BankDetails bank = BankDetails.typed("990044105", "330019204417");
        VendorId turnstone = stage.vendors().get(DemoVendors.NEW_BANK_DETAILS);
        long change = changes.propose(
                stage.cast().on(LocalDate.of(2026, 11, 5), "ines"),
                turnstone,
                wanted(
                        turnstone,
                        DemoVendors.NEW_BANK_DETAILS,
                        List.of("17 Slipway Road", "Skerrow 41025"),
                        bank,
                        "a letter of 3 Nov, confirmed by a call to their known number"));
        changes.confirm(stage.cast().on(LocalDate.of(2026, 11, 6), "ruth"), change, bank);
        VendorId bakehouse = stage.vendors().get("Kelp & Barley Bakehouse");
        changes.propose(
                stage.cast().on(LocalDate.of(2026, 11, 11), "ines"),
                bakehouse,
                wanted(
                        bakehouse,
                        "Kelp & Barley Bakehouse",
                        List.of("2 Millrace Yard", "Skerrow 41031"),
                        null,
                        "printed on their invoice KB-1193"));
    }

    private VendorChanges.Wanted wanted(
            VendorId vendor,
            String payee,
            List<String> lines,
            @org.jspecify.annotations.Nullable BankDetails bank,
            String why) {
        long at = jdbc.sql("SELECT MIN(id) FROM remit_to WHERE vendor_id = ?")
                .param(vendor.value())
                .query(Long.class)
                .single();
        String postal = lines.get(lines.size() - 1).replaceAll("\\D", "");
        return new VendorChanges.Wanted(at, payee, lines, postal, bank == null, bank, why);
    }

    private void sendBackOnce(DemoCompany.Stage stage, BatchId crew) {
        Actor clerk = stage.cast().on(TODAY, "tomas");
        sending.send(clerk, crew, batches.get(crew).version());
        Claim merganser = claimOf(crew, "Merganser Medical");
        Claim dogwatch = claimOf(crew, "Dogwatch Crewing");
        approvals.sendBack(
                stage.cast().on(TODAY, "maren"),
                crew,
                "The bursar has not signed all of this yet.",
                Map.of(
                        merganser.id(),
                        "Six defibrillators, or one? Please ask.",
                        dogwatch.id(),
                        "Pay the newest invoice with the next run."));
        drafting.takeOut(
                clerk,
                crew,
                batches.get(crew).version(),
                java.util.Set.of(
                        dogwatch.lines().get(dogwatch.lines().size() - 1).item().orElseThrow()));
        String mark = jdbc.sql("SELECT MIN(mark_key) FROM approval_mark WHERE batch_id = ? AND claim_id = ?")
                .params(crew.value(), merganser.id().value())
                .query(String.class)
                .single();
        answers.answer(clerk, crew, mark, "Six, one for each ship; order 2026-118 is signed by the harbour master.");
        sending.send(clerk, crew, batches.get(crew).version());
    }

    private Claim claimOf(BatchId batch, String payee) {
        return claimRows.of(batch).stream()
                .filter(claim -> claim.remitTo().payee().equals(payee))
                .findFirst()
                .orElseThrow();
    }

    private static PersonId id(DemoCompany.Stage stage, String signIn) {
        return stage.cast().on(TODAY, signIn).person();
    }
}
