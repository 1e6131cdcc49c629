package app.knottag.server.db;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import java.sql.CallableStatement;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.function.Function;
import org.apache.ibatis.type.BaseTypeHandler;
import org.apache.ibatis.type.JdbcType;
import org.apache.ibatis.type.TypeHandler;
import org.postgresql.util.PGobject;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Carries core's value types to and from PostgreSQL's own types for them. */
@Configuration(proxyBeanMethods = false)
class ValueHandlers {

    abstract static class Text<T> extends BaseTypeHandler<T> {
        private final String type;
        private final Function<String, T> read;

        Text(String type, Function<String, T> read) {
            this.type = type;
            this.read = read;
        }

        @Override
        public void setNonNullParameter(PreparedStatement statement, int i, T value, JdbcType jdbc)
                throws SQLException {
            var object = new PGobject();
            object.setType(type);
            object.setValue(value.toString());
            statement.setObject(i, object);
        }

        @Override
        public T getNullableResult(ResultSet result, String column) throws SQLException {
            return read(result.getString(column));
        }

        @Override
        public T getNullableResult(ResultSet result, int column) throws SQLException {
            return read(result.getString(column));
        }

        @Override
        public T getNullableResult(CallableStatement statement, int column) throws SQLException {
            return read(statement.getString(column));
        }

        private T read(String text) {
            return text == null ? null : read.apply(text);
        }
    }

    @Bean
    TypeHandler<Ipv4Address> address() {
        return new Text<>(
                "inet",
                text -> Ipv4Address.parse(text.endsWith("/32") ? text.substring(0, text.length() - 3) : text)) {};
    }

    @Bean
    TypeHandler<Ipv4Prefix> prefix() {
        return new Text<>("cidr", Ipv4Prefix::parse) {};
    }

    @Bean
    TypeHandler<Mac> mac() {
        return new Text<>("macaddr", Mac::parse) {};
    }

    @Bean
    TypeHandler<Json> json() {
        return new Text<>("jsonb", Json::new) {};
    }
}
