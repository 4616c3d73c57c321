package leveltally.server.imports;

import leveltally.core.Refusal;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Works on files in the background. All state is in the database: a process that stops leaves its file to whichever finds
 * its lease run out. Small files have a lane of their own, so that none waits for a large one.
 */
@Component
class ImportWorker {
    private static final Logger LOG = LoggerFactory.getLogger(ImportWorker.class);
    private static final long SMALL = 1 << 20;

    private final ImportLeases leases;
    private final ImportChecking checking;
    private final ImportBringing bringing;

    ImportWorker(ImportLeases leases, ImportChecking checking, ImportBringing bringing) {
        this.leases = leases;
        this.checking = checking;
        this.bringing = bringing;
    }

    @Scheduled(fixedDelay = 700)
    void anyFile() {
        work(Long.MAX_VALUE);
    }

    @Scheduled(fixedDelay = 700)
    void smallFile() {
        work(SMALL);
    }

    private void work(long largest) {
        leases.take(largest).ifPresent(job -> {
            try {
                if (job.state() == ImportState.CHECKING) {
                    checking.check(job);
                } else {
                    bringing.bringIn(job);
                }
            } catch (ImportLeases.Lost lost) {
                LOG.info("import {} is another process's by now", job.id());
            } catch (Unreadable unreadable) {
                leases.end(job, ImportState.FAILED, unreadable.getMessage());
            } catch (Refusal refused) {
                leases.end(job, ImportState.FAILED, refused.sentence());
            } catch (RuntimeException | StackOverflowError broken) {
                LOG.error("import {} broke off", job.id(), broken);
                leases.failed(job, "something went wrong on our side. What came in stays; send the rest again.");
            }
        });
    }
}
