package leveltally.server.frame;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.sql.SQLException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.aop.ProxyMethodInvocation;
import org.springframework.dao.CannotAcquireLockException;
import org.springframework.transaction.support.TransactionSynchronizationManager;

class DeadlocksTest {
    private static final Exception DEADLOCK =
            new CannotAcquireLockException("wrapped", new SQLException("deadlock", "40001", 1213));

    private final ProxyMethodInvocation call = mock(ProxyMethodInvocation.class);

    @BeforeEach
    void eachTryIsTheCallFromItsBeginning() {
        when(call.invocableClone()).thenReturn(call);
    }

    @Test
    void aTransactionThatLostIsDoneAgain() throws Throwable {
        when(call.proceed()).thenThrow(DEADLOCK).thenThrow(DEADLOCK).thenReturn("posted");
        assertThat(Deadlocks.run(call)).isEqualTo("posted");
        verify(call, times(3)).proceed();
    }

    @Test
    void itEndsAfterFourTriesAndAtOnceForAnythingElse() throws Throwable {
        when(call.proceed()).thenThrow(DEADLOCK);
        assertThatThrownBy(() -> Deadlocks.run(call)).isSameAs(DEADLOCK);
        verify(call, times(4)).proceed();
        ProxyMethodInvocation other = mock(ProxyMethodInvocation.class);
        when(other.invocableClone()).thenReturn(other);
        when(other.proceed()).thenThrow(new IllegalStateException("no lock"));
        assertThatThrownBy(() -> Deadlocks.run(other)).isInstanceOf(IllegalStateException.class);
        verify(other, times(1)).proceed();
    }

    @Test
    void aPartOfATransactionIsNeverRepeated() throws Throwable {
        when(call.proceed()).thenThrow(DEADLOCK);
        TransactionSynchronizationManager.setActualTransactionActive(true);
        try {
            assertThatThrownBy(() -> Deadlocks.run(call)).isSameAs(DEADLOCK);
        } finally {
            TransactionSynchronizationManager.setActualTransactionActive(false);
        }
        verify(call, times(1)).proceed();
    }
}
