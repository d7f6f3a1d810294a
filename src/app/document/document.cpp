// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/document/document.h"

#include <QFileInfo>
#include <algorithm>

#include "app/document/journal.h"
#include "core/assess/loading_state.h"
#include "core/assess/logic_state.h"
#include "core/assess/settle.h"
#include "core/io/book_file.h"
#include "core/io/mesh_file.h"

namespace kranich::app {
namespace {
constexpr size_t most_undo_steps = 500;
constexpr int autosave_delay_ms = 1500;
constexpr int tolerance_delay_ms = 200;
}  // namespace

Document::Document(QObject* parent) : QObject(parent), journal_(std::make_unique<Journal>(*this)) {
  autosave_timer_.setSingleShot(true);
  autosave_timer_.setInterval(autosave_delay_ms);
  connect(&autosave_timer_, &QTimer::timeout, this, &Document::autosave);
  tolerance_timer_.setSingleShot(true);
  tolerance_timer_.setInterval(tolerance_delay_ms);
  connect(&tolerance_timer_, &QTimer::timeout, this, &Document::start_tolerances);
  connect(&tolerance_work_, &Background::got_on, this, &Document::tolerances_changed);
  connect(&proof_work_, &Background::got_on, this, &Document::proof_got_on);
}

Document::~Document() = default;

const Spread* Document::spread_of(const Finding& finding) const {
  return tolerances_ ? tolerances_->of(finding) : nullptr;
}

void Document::drop_tolerances() {
  tolerance_work_.cancel();
  tolerances_.reset();
  tolerance_timer_.start();
}

void Document::cancel_tolerances() {
  tolerance_work_.cancel();
  tolerance_timer_.stop();
  emit tolerances_changed();
}

void Document::start_tolerances() {
  if (drag_start_) return;  // the end of the drag asks again
  tolerance_work_.start<ToleranceResult>(
      [design = design_, assessment = assessment_](const Progress& progress) {
        return over_tolerances(design, assessment, progress);
      },
      [this](ToleranceResult result) {
        tolerances_ = std::move(result);
        emit tolerances_changed();
      });
  emit tolerances_changed();
}

void Document::lay_over(std::vector<Laid> variants) {
  laid_ = std::move(variants);
  emit view_changed();
}

void Document::assess_now() {
  // What takes longer than a frame is proved beside the interface; its findings are unknown till then.
  Stations all;
  all.take_time = false;
  Assessment next = assess(design_, all, &assessment_);
  assessment_ = std::move(next);
  ++revision_;
  drop_tolerances();
  if (!assessment_.loadings.empty() &&
      std::none_of(assessment_.loadings.begin(), assessment_.loadings.end(),
                   [&](const LoadingState& l) { return l.name == loading_.toStdString(); }))
    loading_ = QString::fromStdString(assessment_.loadings.front().name);
  if (assessment_.logic && !assessment_.logic->proof)
    prove(assessment_.logic->fitted);
  else
    proof_work_.cancel();
}

void Document::prove(const logic::Fitted& fitted) {
  using Proof = std::shared_ptr<const logic::Proof>;
  proof_work_.start<Proof>([fitted](const Progress& progress) { return logic::prove(fitted, progress); },
                           [this](const Proof&) {
                             assess_now();
                             emit changed();
                           });
}

void Document::note_modified(bool modified) {
  modified_ = modified;
  if (modified && !autosave_timer_.isActive()) autosave_timer_.start();
  emit file_changed();
}

QString Document::unit(Kind kind) const {
  const std::string_view symbol = display_unit(kind, design_.units).symbol;
  return QString::fromUtf8(symbol.data(), static_cast<qsizetype>(symbol.size()));
}

void Document::edit(const QString& what, const Change& change) {
  if (read_only()) {
    emit refused(why_read_only());
    return;
  }
  auto next = kranich::changed(design_, change);
  if (const auto* faults = std::get_if<std::vector<Fault>>(&next)) {
    say_refused(*faults);
    emit changed();  // entries show what stands
    return;
  }
  Design& design = std::get<Design>(next);
  load_meshes(design, folder(), &design_);
  settle(design);
  if (design == design_) {
    emit changed();
    return;
  }
  keep_for_undo(what, std::move(design_));
  design_ = std::move(design);
  show_change();
  note_modified(true);
}

void Document::keep_for_undo(const QString& what, Design design) {
  undo_.push_back({what, std::move(design)});
  if (undo_.size() > most_undo_steps) undo_.erase(undo_.begin());
  redo_.clear();
}

void Document::say_refused(const std::vector<Fault>& faults) {
  const Fault& f = faults.front();
  emit refused(
      tr("Not done: %1 %2")
          .arg(QString::fromStdString(f.title.empty() ? f.where : f.title), QString::fromStdString(f.what)));
}

std::filesystem::path Document::folder() const {
  return path_.isEmpty() ? std::filesystem::path()
                         : std::filesystem::path(QFileInfo(path_).absolutePath().toStdString());
}

std::vector<std::string> Document::legs_now() const {
  std::vector<std::string> legs;
  for (const auto& l : design_.gear.legs)
    legs.push_back(l.id + "/" + std::to_string(static_cast<int>(l.role)) + "/" +
                   std::to_string(static_cast<int>(l.stands)));
  for (const auto& door : design_.doors) legs.push_back(door.id);
  return legs;
}

void Document::show_change() {
  assess_now();
  emit changed();
  if (auto legs = legs_now(); legs != legs_shown_) {
    legs_shown_ = std::move(legs);
    emit legs_changed();
  }
}

void Document::begin_drag(const QString& what) {
  if (read_only()) return;
  end_drag();  // one that nobody ended
  drag_start_ = design_;
  drag_assessment_ = assessment_;
  drag_text_ = what;
}

void Document::drag(const Change& change) {
  if (!drag_start_) return;
  auto next = kranich::changed(*drag_start_, change);
  if (!std::holds_alternative<Design>(next)) return;  // no further that way: it stays where it last could
  design_ = std::move(std::get<Design>(next));
  settle(design_);
  assess_now();
  emit changed();
}

void Document::end_drag() {
  if (!drag_start_) return;
  Design start = std::move(*drag_start_);
  drag_start_.reset();
  if (!(start == design_)) {
    keep_for_undo(drag_text_, std::move(start));
    note_modified(true);
  }
  emit changed();
}

void Document::cancel_drag() {
  if (!drag_start_) return;
  design_ = std::move(*drag_start_);
  drag_start_.reset();
  assess_now();
  emit changed();
}

void Document::undo() {
  if (undo_.empty() || drag_start_) return;
  redo_.push_back({undo_.back().what, std::move(design_)});
  design_ = std::move(undo_.back().design);
  undo_.pop_back();
  show_change();
  note_modified(true);
}

void Document::redo() {
  if (redo_.empty() || drag_start_) return;
  undo_.push_back({redo_.back().what, std::move(design_)});
  design_ = std::move(redo_.back().design);
  redo_.pop_back();
  show_change();
  note_modified(true);
}

QString Document::undo_text() const { return undo_.empty() ? QString() : undo_.back().what; }
QString Document::redo_text() const { return redo_.empty() ? QString() : redo_.back().what; }

void Document::start(Design design, const QString& path, ReadOnly read_only, const std::string& book) {
  drag_start_.reset();
  undo_.clear();
  redo_.clear();
  pinned_.reset();
  laid_.clear();
  recovery_.drop();
  assessment_ = {};
  design_ = std::move(design);
  path_ = path;
  load_meshes(design_, folder());
  file_state_ = path.isEmpty() ? std::string() : state_of_file(path);
  read_only_ = read_only;
  from_older_ = false;
  loading_ = QString::fromStdString(design_.stance.target_loading);
  gear_position_ = 0;
  state_ = GearState::static_load;
  assess_now();
  legs_shown_ = legs_now();
  autosave_timer_.stop();
  note_modified(false);
  journal_->begin(this->read_only() ? QString() : path, book);
  emit started();
  emit changed();
}

QString Document::why_read_only() const {
  return read_only_ == ReadOnly::newer
             ? tr("This file was written by a newer Kranich and is open for reading only.")
             : tr("Another Kranich has this file open: here it is for reading only. Save it under another "
                  "name to "
                  "go on with it.");
}

std::vector<Fault> Document::open(const QString& path, OpenAs as) {
  auto read = load_project(path.toStdString());
  if (!read.design) return read.faults;
  start(std::move(*read.design), as == OpenAs::copy ? QString() : path,
        read.newer                ? ReadOnly::newer
        : as == OpenAs::read_only ? ReadOnly::open_elsewhere
                                  : ReadOnly::no);
  if (as == OpenAs::copy) note_modified(true);
  from_older_ = read.older;
  return {};
}

std::optional<QString> Document::save(const QString& path) {
  // What another has open goes on under a name of its own.
  const bool elsewhere = read_only_ == ReadOnly::open_elsewhere && path != path_;
  if (read_only() && !elsewhere) return why_read_only();
  if (const auto why = save_project(design_, path.toStdString())) return QString::fromStdString(*why);
  path_ = path;
  read_only_ = ReadOnly::no;
  file_state_ = state_of_file(path);
  if (const auto why = journal_->follow_to(path)) {
    // The design is safe; what was done is not: it stays unsaved, and its safety copy too.
    emit file_changed();
    return tr("The project is saved, its Book is not: %1").arg(*why);
  }
  recovery_.drop();
  autosave_timer_.stop();
  note_modified(false);
  return std::nullopt;
}

void Document::note_unsaved_book() {
  note_modified(true);
  autosave_timer_.start();
}

bool Document::changed_outside() const {
  // A file that is gone has nothing in it to write over.
  return !path_.isEmpty() && !file_state_.empty() && QFileInfo::exists(path_) &&
         state_of_file(path_) != file_state_;
}

void Document::pin() {
  pinned_ = design_;
  pinned_assessment_ = assessment_;
  emit changed();
}

void Document::unpin() {
  pinned_.reset();
  emit changed();
}

void Document::set_loading(const QString& name) {
  if (name == loading_) return;
  loading_ = name;
  ++revision_;
  emit view_changed();
}

void Document::set_state(GearState state) {
  if (state == state_) return;
  state_ = state;
  emit view_changed();
}

void Document::set_gear_position(double share) {
  share = std::clamp(share, 0.0, 1.0);
  if (share == gear_position_) return;
  gear_position_ = share;
  emit view_changed();
}

std::vector<Fault> Document::recover(const LeftBehind& left) {
  auto read = load_project(left.copy);
  if (!read.design) return read.faults;
  start(std::move(*read.design), left.belongs_to);
  // Entries that no file held yet lie beside the copy.
  const auto unsaved = read_book(read_text_file(book_beside(left.copy), size_t{64} << 20).value_or(""));
  journal_->add_all(unsaved.book.entries);
  file_state_ = left.file_state;
  note_modified(true);
  // The old copy is the only one there is until this document has its own.
  if (autosave()) discard(left);
  return {};
}

void Document::leave_for_next_start() {
  if (modified_) autosave();
  if (modified_) recovery_.leave();
}

bool Document::autosave() {
  if (!modified_) return true;
  std::string book;
  if (!journal_->on_disk())
    for (const tasks::Entry& e : journal_->book().entries) book += book_line(e);
  const auto why = recovery_.write(write_project(design_), path_, file_state_, book);
  if (why && !copy_failed_) emit refused(tr("No safety copy of this work could be written: %1").arg(*why));
  copy_failed_ = why.has_value();
  return !why;
}

}  // namespace kranich::app
