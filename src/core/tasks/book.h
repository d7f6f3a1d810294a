// SPDX-License-Identifier: GPL-3.0-or-later
//! The Book: what was done, read, spent and seen. Append only: an entry is struck out by a later one, never
//! edited. It lies beside the project, outside undo and variants (docs/book-format.md).
#pragma once

#include <array>
#include <limits>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace kranich::tasks {

//! What an entry says.
enum class Mark {
  done,    //!< the task was done; its readings
  tried,   //!< the same while a gate was open, with the reason
  aside,   //!< it is not needed, with the reason
  kept,    //!< a change since it was done does not matter, with the reason
  note,    //!< free words
  event,   //!< something happened
  struck,  //!< an earlier entry does not count, with the reason
};
inline constexpr std::array<std::string_view, 7> mark_names{"done", "tried", "aside", "kept",
                                                            "note", "event", "struck"};

//! What may happen to an aircraft that opens tasks again.
struct EventSort {
  std::string_view name;     //!< as the Book writes it: "hard landing"
  std::string_view words;    //!< for the screen
  std::string_view repeats;  //!< the word of the column `repeat` that it lets happen once more; may be empty
  std::string_view reopens;  //!< the word of the column `reopens` that it touches; may be empty
};
const std::vector<EventSort>& all_events();
const EventSort* find_event(std::string_view name);

//! Where something broke, in the key `from` of a failure: only what breaks in ordinary landings tells that a
//! part is too weak.
inline constexpr std::string_view ordinary_landing = "ordinary landing";
inline constexpr std::array<std::string_view, 4> failed_in{ordinary_landing, "hard landing", "on the bench",
                                                           "otherwise"};

//! How a reading compares with what was foretold of it.
enum class Compared { unjudged, within, outside };

//! A reading as it was entered, with what the design foretold at that moment. Numbers in SI; what is no
//! number is a text ("yes", "no", a picture's file).
struct Read {
  std::string name, unit;
  double value = std::numeric_limits<double>::quiet_NaN();
  std::string text;
  double foretold = std::numeric_limits<double>::quiet_NaN();
  double lower = std::numeric_limits<double>::quiet_NaN(), upper = std::numeric_limits<double>::quiet_NaN();
  Compared compared = Compared::unjudged;
  bool operator==(const Read&) const = default;
};

struct Entry {
  std::string id;  //!< unlike every other, so that two people's books can be laid together line by line
  std::string at;  //!< local time, "2026-11-30T09:15:00"
  std::string who;
  Mark mark = Mark::note;
  std::string task, piece, piece_words;  //!< what for, and how it was called then
  std::vector<Read> readings;
  std::string choice;  //!< the side taken where two schools meet
  std::string reason, note;
  std::string build_state, loading, revision;
  std::vector<std::string> pictures;  //!< files, relative to the Book
  double hours = 0, cost = 0;
  std::string source;  //!< of the instruction followed
  std::string event, what, from, to;
  int count = 0;        //!< landings
  std::string strikes;  //!< id of the entry that does not count any more
  //! What of the design the task rests on, as it was then: paths and values as they were told.
  std::vector<std::pair<std::string, std::string>> seen;

  std::string_view day() const { return std::string_view(at).substr(0, 10); }
  bool operator==(const Entry&) const = default;
};

struct Book {
  std::vector<Entry> entries;  //!< in the order of the file
};

//! The entries of a Book that count, oldest first: none that is struck out, none that strikes. Of one state
//! of the Book, which must outlive it.
class History {
 public:
  explicit History(const Book& book);
  const std::vector<const Entry*>& valid() const { return valid_; }
  //! Of one task for one piece: whatever marks it.
  const std::vector<const Entry*>& of(std::string_view task, std::string_view piece) const;
  //! Of these the ones that hold readings: done or tried.
  std::vector<const Entry*> readings(std::string_view task, std::string_view piece) const;

 private:
  std::vector<const Entry*> valid_;
  std::map<std::pair<std::string_view, std::string_view>, std::vector<const Entry*>> by_box_;
};

//! Hours and money of an entry: its own, or what a reading of it says in that unit.
double hours_of(const Entry& entry);
double cost_of(const Entry& entry);

//! Days since the start of 1970 of "2026-11-30…"; nothing where it is no date.
std::optional<int> day_number(std::string_view date);

}  // namespace kranich::tasks
