#include "scene/tables.hpp"

#include "coldbrick/error.hpp"

namespace coldbrick::inline v0::detail {

std::shared_ptr<const Table> TableReader::read(const Word& word, const std::string& file) {
    const auto lock = std::scoped_lock{loaded_.mutex};
    auto known = loaded_.tables.find(file);
    if (known == loaded_.tables.end()) {
        const auto text = files_.text_of(word, file, "table", budget_.rest() / 4);
        if (!text) return nullptr;
        try {
            known = loaded_.tables.emplace(file, std::make_shared<const Table>(parse_table(*text, file))).first;
        } catch (const Error& error) {
            faults_.add(word, error.what());
            return nullptr;
        }
    }
    if (paid_.insert(file).second) {
        std::uint64_t bytes = 0;
        for (const auto& row : known->second->rows) {
            bytes += sizeof(TableRow) + row.cells.size() * sizeof(std::string);
            for (const auto& cell : row.cells) bytes += cell.size() < sizeof(std::string) / 2 ? 0 : cell.size();
        }
        if (!budget_.spend(bytes, word)) return nullptr;
    }
    return known->second;
}

}  // namespace coldbrick::inline v0::detail
