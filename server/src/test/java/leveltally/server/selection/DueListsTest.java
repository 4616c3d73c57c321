package leveltally.server.selection;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.LocalDate;
import java.util.Collections;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import leveltally.core.selection.Selection;
import leveltally.core.selection.Span;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.mockito.Answers;
import org.mockito.Mock;
import org.mockito.junit.jupiter.MockitoExtension;

/** What is kept of lists is bounded by what they hold, not by what of it is shown. */
@ExtendWith(MockitoExtension.class)
class DueListsTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 12);
    private static final int ROWS = 150;

    /** A day on which nothing is due: the narrowest list there is. */
    private static final DueLists.Shape NARROW = new DueLists.Shape(
            Listing.By.DAY,
            Listing.Showing.ALL,
            new Span<>(LocalDate.of(2030, 1, 1), LocalDate.of(2030, 1, 1)),
            new RowOrder(null, false));

    @Mock
    Due due;

    private final Selection large = mock(Selection.class);
    private DueLists lists;

    @BeforeEach
    void oneHundredAndFiftyRows() {
        lists = new DueLists(due, 400);
        Selection.Row row = mock(Selection.Row.class, Answers.RETURNS_DEEP_STUBS);
        when(row.candidate().invoice().dueDate()).thenReturn(TODAY);
        when(row.candidate().invoice().discount().until()).thenReturn(null);
        when(large.rows()).thenReturn(Collections.nCopies(ROWS, row));
    }

    private static DueQuestion question(int n) {
        return DueQuestion.of(1, "2026-11-13", "2026-11-" + (13 + n), null);
    }

    @Test
    void fiveNarrowListsKeepNoMoreRowsThanTwoSelectionsHold() {
        when(due.select(any(), any())).thenReturn(large);
        for (int i = 0; i < 5; i++) {
            assertThat(lists.now(question(i), NARROW, TODAY).rows()).isEmpty();
        }
        assertThat(lists.rowsKept()).isBetween((long) ROWS, 400L);
    }

    @Test
    void aSlipAndAFurtherPageReadWhatTheListComputed() {
        when(due.select(any(), any())).thenReturn(large);
        Listing list = lists.now(question(0), NARROW, TODAY);
        assertThat(lists.lately(question(0), TODAY)).isSameAs(large);
        assertThat(lists.lately(question(0), NARROW, TODAY)).isSameAs(list);
        verify(due, times(1)).select(any(), any());
        lists.now(question(0), NARROW, TODAY);
        verify(due, times(2)).select(any(), any());
    }

    @Test
    void atMostTwoAreComputedAtOneMoment() throws InterruptedException {
        AtomicInteger now = new AtomicInteger();
        AtomicInteger most = new AtomicInteger();
        when(due.select(any(), any())).thenAnswer(call -> {
            most.accumulateAndGet(now.incrementAndGet(), Math::max);
            Thread.sleep(20);
            now.decrementAndGet();
            return large;
        });
        ExecutorService five = Executors.newFixedThreadPool(5);
        CountDownLatch together = new CountDownLatch(5);
        for (int i = 0; i < 5; i++) {
            int n = i;
            five.submit(() -> {
                together.countDown();
                together.await();
                return lists.now(question(n), NARROW, TODAY);
            });
        }
        five.shutdown();
        assertThat(five.awaitTermination(10, TimeUnit.SECONDS)).isTrue();
        assertThat(most).hasValue(2);
    }
}
