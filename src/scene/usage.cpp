// What there is to say, for help.
#include "scene/shape_statements.hpp"
#include "scene/statements.hpp"

#include "coldbrick/scene.hpp"

#include <algorithm>
#include <string>

namespace coldbrick::inline v0 {

namespace {

// "    WORD form          meaning", with further lines of the meaning below its first one.
void add_line(std::string& text, std::string_view word, std::size_t least, std::string_view form,
              std::string_view meaning) {
    constexpr std::size_t indent = 51;
    auto head = "    " + std::string{word};
    head.resize(std::max(head.size() + 1, least + 5), ' ');
    head += form;
    if (meaning.empty()) {
        text += head.substr(0, head.find_last_not_of(' ') + 1) + "\n";
        return;
    }
    if (head.size() + 1 > indent) {
        text += head + "\n" + std::string(indent, ' ');
    } else {
        head.resize(indent, ' ');
        text += head;
    }
    for (const auto c : meaning) {
        text += c;
        if (c == '\n') text.append(indent, ' ');
    }
    text += "\n";
}

}  // namespace

std::string scene_usage() {
    std::string text;
    const auto add = [&](const detail::StatementKind& kind) {
        add_line(text, kind.word(), 6, kind.form, kind.meaning);
    };
    add(*detail::statement_kind("sheet"));
    for (const auto& kind : detail::statement_kinds()) {
        if (kind.verb != detail::Verb::sheet) add(kind);
    }
    text += "\n";
    for (const auto& shape : detail::shape_statements()) add_line(text, shape.name, 8, shape.form, shape.meaning);
    add_line(text, "region", 8, "SHAPE plus|minus|within|exclusive_or SHAPE ...", "shapes joined from left to right");
    return text;
}

}  // namespace coldbrick::inline v0
