package leveltally.server.frame;

import java.sql.SQLException;
import java.util.concurrent.ThreadLocalRandom;
import org.aopalliance.intercept.MethodInterceptor;
import org.aopalliance.intercept.MethodInvocation;
import org.jspecify.annotations.Nullable;
import org.springframework.aop.ProxyMethodInvocation;
import org.springframework.aop.support.DefaultPointcutAdvisor;
import org.springframework.aop.support.annotation.AnnotationMatchingPointcut;
import org.springframework.beans.factory.config.BeanDefinition;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Role;
import org.springframework.core.Ordered;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionCallback;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Two transactions that wait for each other: the database ends one of them, and it is done again from its beginning. Only a
 * whole transaction is, never a part of one, and nothing of the first try is left.
 */
@Configuration(proxyBeanMethods = false)
@Role(BeanDefinition.ROLE_INFRASTRUCTURE)
class Deadlocks {
    private static final int TRIES = 4;
    private static final int DEADLOCK = 1213;
    private static final int CHANGED_SINCE_READ = 1020;

    @Bean
    @Role(BeanDefinition.ROLE_INFRASTRUCTURE)
    static DefaultPointcutAdvisor doneAgainAfterADeadlock() {
        DefaultPointcutAdvisor advisor = new DefaultPointcutAdvisor(
                AnnotationMatchingPointcut.forMethodAnnotation(Transactional.class),
                (MethodInterceptor) Deadlocks::run);
        // around the transaction, not inside it
        advisor.setOrder(Ordered.HIGHEST_PRECEDENCE);
        return advisor;
    }

    /** Deeds whose transaction is only a part of a method. */
    @Bean
    static TransactionTemplate repeatedTransactions(PlatformTransactionManager transactions) {
        return new TransactionTemplate(transactions) {
            private static final long serialVersionUID = 1;

            @Override
            public <T extends @Nullable Object> T execute(TransactionCallback<T> action) {
                try {
                    return again(() -> super.execute(action));
                } catch (RuntimeException | Error told) {
                    throw told;
                } catch (Throwable impossible) {
                    throw new IllegalStateException(impossible);
                }
            }
        };
    }

    private interface Try<T extends @Nullable Object> {
        T once() throws Throwable;
    }

    static @Nullable Object run(MethodInvocation call) throws Throwable {
        return again(() -> ((ProxyMethodInvocation) call).invocableClone().proceed());
    }

    private static <T extends @Nullable Object> T again(Try<T> attempt) throws Throwable {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            return attempt.once();
        }
        for (int tries = 1; ; tries++) {
            try {
                return attempt.once();
            } catch (Exception failed) {
                if (tries == TRIES || !isOne(failed)) {
                    throw failed;
                }
                Thread.sleep(ThreadLocalRandom.current().nextLong(10, 60L * tries));
            }
        }
    }

    /** Whether a deadlock is behind a failure, whoever wrapped it. */
    static boolean isOne(Throwable failed) {
        for (Throwable cause = failed; cause != null; cause = cause.getCause()) {
            if (cause instanceof SQLException sql
                    && (sql.getErrorCode() == DEADLOCK || sql.getErrorCode() == CHANGED_SINCE_READ)) {
                return true;
            }
        }
        return false;
    }
}
