package leveltally.server.clearing;

import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FileState;
import leveltally.core.electronic.StatusReportReader;
import leveltally.core.electronic.TransferStatus;
import leveltally.core.electronic.TransferStatus.Of;
import leveltally.core.electronic.TransferStatus.Verdict;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankAnswers.RefusedItem;
import leveltally.server.bankfiles.PaymentFileStore;
import leveltally.server.electronic.Carried;
import leveltally.server.electronic.CarriedPayments;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** What a bank says of a file of credit transfers: of all of it, of a group, of single payments (ISO 20022 pain.002). */
@Service
public class StatusReports {
    private static final String SENT_BACK = "RJCT";

    private final BankAnswers answers;
    private final PaymentFileStore store;
    private final CarriedPayments payments;
    private final BankNotices notices;
    private final AuditTrail audit;
    private final TransactionTemplate whole;

    StatusReports(
            BankAnswers answers,
            PaymentFileStore store,
            CarriedPayments payments,
            BankNotices notices,
            AuditTrail audit,
            TransactionTemplate whole) {
        this.answers = answers;
        this.store = store;
        this.payments = payments;
        this.notices = notices;
        this.audit = audit;
        this.whole = whole;
    }

    /**
     * What a report comes to: of all of a file, and of single payments by their references.
     *
     * @param took those it says by themselves that the bank took
     * @param pending those of which it has not said yet what becomes of them
     */
    private record Report(
            String message,
            Verdict all,
            String why,
            Map<String, String> refused,
            Set<String> took,
            Set<String> pending) {
        static Report of(byte[] content) {
            List<TransferStatus> told = new ArrayList<>();
            String message = StatusReportReader.read(new ByteArrayInputStream(content), told::add);
            Map<String, String> refused = new LinkedHashMap<>();
            Verdict all = Verdict.NOT_KNOWN;
            String why = "";
            Set<String> took = new LinkedHashSet<>();
            Set<String> pending = new LinkedHashSet<>();
            for (TransferStatus one : told) {
                if (one.of() == Of.TRANSFER) {
                    if (one.verdict() == Verdict.TOOK) {
                        took.add(one.id());
                    } else if (one.verdict() == Verdict.NOT_KNOWN) {
                        pending.add(one.id());
                    }
                    if (one.verdict() == Verdict.REFUSED) {
                        refused.put(one.id(), one.reason().isEmpty() ? "the bank does not say why" : one.reason());
                    }
                } else if (weighs(one.verdict()) >= weighs(all)) {
                    all = one.verdict();
                    why = one.reason();
                }
            }
            boolean some = all == Verdict.NOT_KNOWN && (!took.isEmpty() || !refused.isEmpty());
            return new Report(message, some ? Verdict.IN_PART : all, why, refused, took, pending);
        }

        private static int weighs(Verdict verdict) {
            return switch (verdict) {
                case NOT_KNOWN -> 0;
                case TOOK -> 1;
                case IN_PART -> 2;
                case REFUSED -> 3;
            };
        }
    }

    /**
     * Reads one, whole or not at all.
     *
     * @return what came of it, in words
     * @throws Refusal when it is none, or speaks of a file that was never made here
     */
    public String read(Actor by, BankAccountId account, byte[] content) {
        by.mayDo(Deed.RECORD_CLEARING);
        Report report = Report.of(content);
        List<Long> sentBack = new ArrayList<>();
        String said = Objects.requireNonNull(whole.execute(status -> {
            // it may be done again from its beginning
            sentBack.clear();
            return take(by, account, report, sentBack);
        }));
        return sentBack.isEmpty()
                ? said
                : said + " " + notices.dealtWith(by, sentBack.size(), sentBack).inWords();
    }

    private String take(Actor by, BankAccountId account, Report report, List<Long> sentBack) {
        BankAnswers.Answered file = answers.answered(account, "transfers-" + report.message() + ".xml", null)
                .orElseThrow(
                        () -> Refusal.conflict(
                                "no-such-file",
                                "It answers a file “" + report.message()
                                        + "”, which the bank was never given from this account. Set it aside, and ask the bank."));
        FileState state = FileState.valueOf(file.state());
        audit.record(
                by,
                "read status report",
                "bank file " + file.id(),
                Map.of(
                        "says",
                        report.all().name(),
                        "refused",
                        report.refused().keySet().toString()));
        String called = "file " + file.serial();
        if (report.all() == Verdict.NOT_KNOWN) {
            return "The bank has " + called + " and has not said what becomes of it.";
        }
        if (report.all() == Verdict.REFUSED && state == FileState.MADE) {
            answers.refused(by, file.id(), report.why().isEmpty() ? "the bank does not say why" : report.why());
            return "The bank refused " + called + (report.why().isEmpty() ? "." : ": " + report.why() + ".");
        }
        if (state == FileState.REFUSED) {
            throw Refusal.conflict(
                    report.all() == Verdict.REFUSED ? "answered-already" : "answer-contradicts",
                    "It speaks of " + called + ", which is recorded as refused. Ask the bank, then set this aside.");
        }
        Map<String, String> refused =
                report.all() == Verdict.REFUSED ? all(account, file.id(), report) : report.refused();
        return some(by, account, file, state, report, refused, sentBack);
    }

    /** A file that was taken first and is refused now: each of its payments is. */
    private Map<String, String> all(BankAccountId account, long file, Report report) {
        Map<String, String> all = new LinkedHashMap<>();
        String why = report.why().isEmpty() ? "the bank does not say why" : report.why();
        payments.of(account, file).forEach(one -> all.put(one.called(), why));
        return all;
    }

    private String some(
            Actor by,
            BankAccountId account,
            BankAnswers.Answered file,
            FileState state,
            Report report,
            Map<String, String> refused,
            List<Long> sentBack) {
        List<Carried> all = payments.of(account, file.id());
        Set<PaymentId> pending = payments(all, report.pending());
        List<RefusedItem> unposted = new ArrayList<>();
        Map<Carried, String> posted = new LinkedHashMap<>();
        Map<String, Carried> called =
                all.stream().collect(Collectors.toMap(one -> key(one.called()), Function.identity()));
        refused.forEach((reference, why) -> {
            Carried carried = called.get(key(reference));
            if (carried == null && state == FileState.MADE) {
                throw Refusal.conflict(
                        "no-such-payment",
                        "It refuses a payment “" + reference + "”, which file " + file.serial()
                                + " does not carry. Nothing of it was recorded; ask the bank.");
            }
            if (carried != null && carried.state().isInTheLedger()) {
                posted.put(carried, why);
            } else if (carried != null && carried.state() == PaymentState.PREPARED) {
                unposted.add(new RefusedItem(carried.called(), why));
            }
        });
        sentBack.addAll(notices.putReturned(by, account, SENT_BACK, posted));
        if (state == FileState.MADE) {
            answers.accepted(by, file.id(), "status report", unposted);
        } else if (!unposted.isEmpty()) {
            answers.refusedAfterwards(by, file.id(), unposted);
        } else if (refused.isEmpty() && report.took().isEmpty() && pending.isEmpty() && !waits(file.id())) {
            throw Refusal.conflict(
                    "answered-already", "That the bank took file " + file.serial() + " is recorded already.");
        }
        if (report.all() == Verdict.TOOK || state == FileState.MADE) {
            store.pending(file.id(), pending);
        } else {
            store.said(file.id(), payments(all, report.took()));
        }
        String open = pending.isEmpty()
                ? ""
                : " Of " + pending.size() + (pending.size() == 1 ? " payment" : " payments")
                        + " it has not said yet what becomes of it.";
        return "The bank took file " + file.serial()
                + (refused.isEmpty()
                        ? "."
                        : ", but not " + refused.size() + (refused.size() == 1 ? " payment." : " payments."))
                + open;
    }

    /** References are what they are in capitals. */
    private static String key(String reference) {
        return reference.toUpperCase(Locale.ROOT);
    }

    private static Set<PaymentId> payments(List<Carried> of, Set<String> references) {
        return of.stream()
                .filter(one -> references.contains(one.called()))
                .map(Carried::payment)
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** Whether something of a file the bank took is still pending. */
    private boolean waits(long file) {
        return store.pendingOf(file) > 0;
    }
}
