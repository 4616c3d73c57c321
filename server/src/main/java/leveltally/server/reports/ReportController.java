package leveltally.server.reports;

import leveltally.core.batches.BatchId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Csv;
import leveltally.server.frame.Needs;
import org.springframework.core.io.Resource;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The list of what will be paid, and the register of what was printed. */
@RestController
@RequestMapping("/api/batches/{id}")
@Needs(Deed.READ)
class ReportController {
    private final PaymentsList payments;
    private final RunRegister register;
    private final ReportFiles files;

    ReportController(PaymentsList payments, RunRegister register, ReportFiles files) {
        this.payments = payments;
        this.register = register;
        this.files = files;
    }

    @GetMapping("/payments-list")
    ReportView payments(Actor by, @PathVariable long id) {
        return ReportView.of(payments.of(by, new BatchId(id)));
    }

    @GetMapping(value = "/payments-list.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> paymentsPdf(Actor by, @PathVariable long id) {
        return files.pdf(by, payments.of(by, new BatchId(id)));
    }

    @GetMapping(value = "/payments-list.csv", produces = Csv.TYPE)
    ResponseEntity<Resource> paymentsCsv(Actor by, @PathVariable long id) {
        return files.csv("payments-of-batch-" + id + ".csv", payments.of(by, new BatchId(id)));
    }

    @GetMapping("/run-register")
    ReportView register(Actor by, @PathVariable long id) {
        return ReportView.of(register.of(by, new BatchId(id)));
    }

    @GetMapping(value = "/run-register.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> registerPdf(Actor by, @PathVariable long id) {
        return files.pdf(by, register.of(by, new BatchId(id)));
    }

    @GetMapping(value = "/run-register.csv", produces = Csv.TYPE)
    ResponseEntity<Resource> registerCsv(Actor by, @PathVariable long id) {
        return files.csv("printed-of-batch-" + id + ".csv", register.of(by, new BatchId(id)));
    }
}
