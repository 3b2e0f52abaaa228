// Calls of libjpeg, which knows neither exceptions nor destructors.
#pragma once

#include "coldbrick/budget.hpp"

#include <csetjmp>
#include <cstddef>
#include <cstdio>
#include <new>
#include <optional>
#include <string>
#include <vector>

#include <jpeglib.h>
// After it, which it needs.
#include <jerror.h>

namespace coldbrick::inline v0::detail {

// What libjpeg says of a file. The first member, so that it is found from libjpeg's own.
struct JpegFaults {
    jpeg_error_mgr manager;
    std::jmp_buf leave;
    char fault[JMSG_LENGTH_MAX] = "";
    std::optional<Limit> limit = std::nullopt;  // that was met
    std::vector<std::string> warnings = {};

    static JpegFaults& of(j_common_ptr jpeg) noexcept { return *reinterpret_cast<JpegFaults*>(jpeg->err); }

    // To be given to libjpeg as its `err`.
    jpeg_error_mgr* set_up() {
        auto* const set = jpeg_std_error(&manager);
        manager.error_exit = [](j_common_ptr jpeg) {
            auto& faults = of(jpeg);
            faults.manager.format_message(jpeg, faults.fault);
            faults.leave_reading();
        };
        manager.emit_message = [](j_common_ptr jpeg, int level) { of(jpeg).warn(jpeg, level); };
        manager.output_message = [](j_common_ptr) {};
        return set;
    }

    // Leaves run(), which throws the fault. libjpeg requires it.
    // NOLINTNEXTLINE(cert-err52-cpp)
    [[noreturn]] void leave_reading() { std::longjmp(leave, 1); }

    // Does call(), in which nothing may need to be undone: a fault leaves it by a long jump. Throws Error for one.
    template <class Call>
    void run(const Call& call) {
        // NOLINTNEXTLINE(cert-err52-cpp)
        if (setjmp(leave) != 0) {
            if (manager.msg_code == JERR_OUT_OF_MEMORY) throw std::bad_alloc{};
            if (limit) throw LimitError{*limit, std::string{"jpeg: "} + fault};
            throw Error{std::string{"jpeg: "} + fault};
        }
        call();
    }

    // Adds work to the budget; what that refuses becomes the fault.
    void spend(std::uint64_t work) noexcept {
        try {
            spend_work(work);
        } catch (const LimitError& error) {
            limit = error.limit();
            std::snprintf(fault, sizeof fault, "%s", error.what());
        }
    }

  private:
    // Stray bytes between the parts of a file do no harm; other warnings say that a part of the picture is lost.
    void warn(j_common_ptr jpeg, int level) {
        if (level >= 0) return;
        const auto is_harmless = manager.msg_code == JWRN_EXTRANEOUS_DATA || manager.msg_code == JWRN_JFIF_MAJOR ||
                                 manager.msg_code == JWRN_ADOBE_XFORM;
        if (!is_harmless) manager.error_exit(jpeg);
        char warning[JMSG_LENGTH_MAX] = "";
        manager.format_message(jpeg, warning);
        constexpr std::size_t most = 20;
        try {
            if (warnings.size() < most) warnings.emplace_back(warning);
        } catch (const std::bad_alloc&) {
            return;
        }
    }
};

}  // namespace coldbrick::inline v0::detail
