package app.knottag.server.db;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;

/** Where the database is, and as whom it is asked, for those that keep a connection of their own. */
public record Base(String url, String user, String password) {

    /** A connection over which nothing comes any more is given up by the other end within so long, too. */
    private static final String ALIVE =
            "-c tcp_keepalives_idle=10 -c tcp_keepalives_interval=5 -c tcp_keepalives_count=3";

    public static Base of(DataSourceProperties properties) {
        return new Base(properties.determineUrl(), properties.determineUsername(), properties.determinePassword());
    }

    Connection open() throws SQLException {
        var with = new java.util.Properties();
        with.setProperty("user", user);
        with.setProperty("password", password);
        with.setProperty("options", ALIVE);
        with.setProperty("tcpKeepAlive", "true");
        return DriverManager.getConnection(url, with);
    }
}
