// The words after a statement's head to arguments, checked against its forms.
#pragma once

#include "scene/grammar.hpp"
#include "scene/scope.hpp"

#include <algorithm>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

template <class List>
bool includes(const List& list, std::string_view word) {
    return std::find(list.begin(), list.end(), word) != list.end();
}

// Says that a shape cannot be filled, or that there is none of that name.
void refuse_shape(const Word& shape, bool is_stroked, Faults& faults);

// A keyword and its values, as words.
struct ReadArgument {
    Word keyword;
    std::vector<Word> values;
};

// Null for a word that is none.
const Keyword* find_keyword(std::string_view word);

// "did you mean 'circle'?", or what is allowed.
std::string suggestion(std::string_view word, const std::vector<std::string_view>& known);

// Cuts words into arguments. Other words that might have been meant where a keyword is unknown are known too.
std::vector<ReadArgument> read_arguments(std::span<const Word> words, const std::vector<StatementForm>& forms,
                                         Scope& scope, Faults& faults, std::span<const std::string_view> others = {});

// What is checked against forms: "fill circle" and its arguments, reported at a place if something is missing.
struct GivenArguments {
    std::string words;
    const Word& place;
    const std::vector<ReadArgument>& given;
    bool may_repeat_through;
};

// Which form the arguments have, with faults for what is too much or missing.
void check_form(const GivenArguments& arguments, const std::vector<StatementForm>& forms, Faults& faults);

}  // namespace coldbrick::inline v0::detail
