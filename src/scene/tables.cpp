#include "scene/tables.hpp"

#include "coldbrick/error.hpp"

namespace coldbrick::inline v0::detail {

std::shared_ptr<const Table> TableReader::read(const Word& word, const std::string& file) {
    if (const auto known = read_.find(file); known != read_.end()) return known->second;
    const auto path = files_.place_of(word, file, "table");
    if (!path) return nullptr;
    const auto lock = std::scoped_lock{loaded_.mutex};
    auto known = loaded_.tables.find(path->string());
    if (known == loaded_.tables.end()) {
        const auto text = files_.text_at(word, *path, file, budget_.rest() / 4);
        if (!text) return nullptr;
        try {
            known =
                loaded_.tables.emplace(path->string(), std::make_shared<const Table>(parse_table(*text, file))).first;
        } catch (const Error& error) {
            faults_.add(word, error.what());
            return nullptr;
        }
    }
    if (paid_.insert(path->string()).second) {
        std::uint64_t bytes = 0;
        for (const auto& row : known->second->rows) {
            bytes += sizeof(TableRow) + row.cells.size() * sizeof(std::string);
            for (const auto& cell : row.cells) bytes += cell.size() < sizeof(std::string) / 2 ? 0 : cell.size();
        }
        if (!budget_.spend(bytes, word)) return nullptr;
    }
    return read_[file] = known->second;
}

}  // namespace coldbrick::inline v0::detail
