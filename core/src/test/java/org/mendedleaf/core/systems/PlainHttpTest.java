package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PlainHttpTest {

    @ParameterizedTest
    @ValueSource(
            strings = {
                "http://library.example",
                "HTTP://library.example/dav",
                "http://192.168.1.4:8080",
                "http://127.0.0.1.example",
                "http://127.example",
                "http://localhost.example",
                "http://user@library.example",
                "http://[2001:db8::1]/"
            })
    void whatGoesToAnotherComputerWithoutEncryptionCanBeRead(String address) {
        assertThat(PlainHttp.isReadableOnTheWay(address)).isTrue();
        assertThatThrownBy(() -> PlainHttp.refuse(address))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("https");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "https://library.example",
                "http://127.0.0.1:8080",
                "http://127.1.2.3",
                "http://localhost/dav",
                "http://LOCALHOST",
                "http://office.localhost",
                "http://[::1]:8080",
                " http://127.0.0.1 "
            })
    void whatIsEncryptedOrStaysOnThisComputerCannot(String address) {
        assertThat(PlainHttp.isReadableOnTheWay(address)).isFalse();
        assertThatCode(() -> PlainHttp.refuse(address)).doesNotThrowAnyException();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "library", "ftp://x", "http:// bad"})
    void whatIsNoAddressIsRefusedByOthers(String address) {
        assertThat(PlainHttp.isReadableOnTheWay(address)).isFalse();
    }
}
