package leveltally.server;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import javax.sql.DataSource;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.jdbc.datasource.DelegatingDataSource;

/**
 * Counts the statements that requests ask of the database, and no others: jobs in the background ask when they please,
 * and the session is looked up once more when an answer is sent in pieces.
 */
final class Asked implements BeanPostProcessor {
    private static final AtomicLong COUNT = new AtomicLong();
    private static final Set<String> PREPARING = Set.of("prepareStatement", "prepareCall");

    static long soFar() {
        return COUNT.get();
    }

    @Override
    public Object postProcessAfterInitialization(Object bean, String name) {
        return bean instanceof DataSource source ? new Counting(source) : bean;
    }

    private static final class Counting extends DelegatingDataSource {
        Counting(DataSource source) {
            super(source);
        }

        @Override
        public Connection getConnection() throws SQLException {
            return counting(super.getConnection());
        }

        private static Connection counting(Connection connection) {
            return (Connection) Proxy.newProxyInstance(
                    Asked.class.getClassLoader(), new Class<?>[] {Connection.class}, (proxy, method, args) -> {
                        if (countsFor(method.getName(), args)
                                && Thread.currentThread().getName().startsWith("http-nio-")) {
                            COUNT.incrementAndGet();
                        }
                        try {
                            return method.invoke(connection, args);
                        } catch (InvocationTargetException failed) {
                            throw failed.getCause();
                        }
                    });
        }

        private static boolean countsFor(String method, Object[] args) {
            return method.equals("createStatement")
                    || PREPARING.contains(method) && !((String) args[0]).contains("SPRING_SESSION");
        }
    }
}
