// Tables of comma-separated values, after RFC 4180.
#include "folder_test.hpp"

#include <coldbrick/error.hpp>
#include <coldbrick/table.hpp>

#include <random>

namespace {

using namespace coldbrick;

using Cells = std::vector<std::string>;

TEST(Tables, AreReadAsTheStandardWritesThem) {
    const auto table =
        parse_table("\xef\xbb\xbfname, length \r\nOtter,12\r\n\"Eel, \"\"old\"\"\",\r\n\n\"two\nlines\",3");
    EXPECT_EQ(table.columns, (Cells{"name", "length"}));
    ASSERT_EQ(table.rows.size(), 3U);
    EXPECT_EQ(table.rows[0].cells, (Cells{"Otter", "12"}));
    EXPECT_EQ(table.rows[1].cells, (Cells{"Eel, \"old\"", ""}));
    EXPECT_EQ(table.rows[2].cells, (Cells{"two\nlines", "3"}));
    EXPECT_EQ(table.rows[0].line, 2);
    EXPECT_EQ(table.rows[1].line, 3);
    EXPECT_EQ(table.rows[2].line, 5);
    EXPECT_EQ(table.cell(2, "length"), "3");
    EXPECT_THROW((void)table.cell(0, "width"), Error);
}

TEST(Tables, ComeBackWhateverIsInThem) {
    std::mt19937 random{5};
    const std::string letters = "ab,\"\n\r é";
    for (int round = 0; round < 200; ++round) {
        const auto columns = 1 + random() % 4;
        std::string text;
        Cells names;
        for (unsigned i = 0; i < columns; ++i) {
            names.push_back("c" + std::to_string(i));
            text += (i > 0 ? "," : "") + names.back();
        }
        text += "\r\n";
        std::vector<Cells> rows(random() % 5);
        for (auto& row : rows) {
            for (unsigned i = 0; i < columns; ++i) {
                std::string cell;
                for (auto k = random() % 6; k > 0; --k) cell += letters[random() % letters.size()];
                text += (i > 0 ? ",\"" : "\"");
                for (const auto c : cell) text += c == '"' ? std::string{"\"\""} : std::string(1, c);
                text += "\"";
                row.push_back(cell);
            }
            text += random() % 2 == 0 ? "\r\n" : "\n";
        }
        const auto table = parse_table(text);
        EXPECT_EQ(table.columns, names);
        std::vector<Cells> read;
        for (const auto& row : table.rows) read.push_back(row.cells);
        EXPECT_EQ(read, rows) << text;
    }
}

TEST(Tables, FaultsSayWhere) {
    const auto fault = [](const std::string& text) { return error_of([&] { (void)parse_table(text, "boats.csv"); }); };
    EXPECT_EQ(fault(""), "boats.csv:1:1: the table is empty; its first line names the columns");
    EXPECT_EQ(fault("a,b\n1\n"), "boats.csv:2:1: this row has 1 cells, and the table 2 columns");
    EXPECT_EQ(fault("a,b\n1,2\n1,2,3\n"), "boats.csv:3:1: this row has 3 cells, and the table 2 columns");
    EXPECT_EQ(fault("a,b\n1,\"2\n3\n"), "boats.csv:2:3: this quote is not closed");
    EXPECT_EQ(fault("a,b\n\"1\"x,2\n"),
              "boats.csv:2:4: behind the quote that ends a cell there is neither a comma nor the line's end");
    EXPECT_EQ(fault("a,b\n1,x\"2\"\n"),
              "boats.csv:2:4: a quote inside of a cell; put the cell between quotes, and double those in it");
    EXPECT_EQ(fault("a,,c\n"), "boats.csv:1:1: column 2 has no name");
    EXPECT_EQ(fault("a,b,a\n"), "boats.csv:1:1: there are two columns 'a'");
}

class TableFiles : public FolderTest {};

TEST_F(TableFiles, AreOrdinaryFilesOfSomeBytes) {
    write("boats.csv", "a\n1\n");
    EXPECT_EQ(read_table(path("boats.csv").string()).rows.size(), 1U);
    EXPECT_NE(
        error_of([&] { (void)read_table(path("boats.csv").string(), 3); }).find("the file has 4 bytes; allowed are 3"),
        std::string::npos);
    EXPECT_NE(error_of([&] { (void)read_table(path("none.csv").string()); }).find("cannot be read"), std::string::npos);
    EXPECT_NE(error_of([] { (void)read_table("/dev/zero"); }).find("it is a device, a pipe or a socket"),
              std::string::npos);
}

}  // namespace
