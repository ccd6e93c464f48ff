# frozen_string_literal: true

require_relative "../support/team_test"

# What somebody who has a show of their own, or helps in one, gains of another show: nothing, by whichever route. The routes are taken from
# the applications themselves, so that one added later is tried too; what stands in their places is of the other show.
class AnotherShowTest < TeamTest
  # Also where a role would not allow it.
  NOTHING_THERE = [403, 404].freeze
  MARK = "heronsecret"
  HASH = "ab" * 16
  APPS = Bavard::Web::App::STATIONS.merge("/prompter" => Bavard::Web::PrompterApp).freeze
  # Of no show: what there is of each does not hang on whose it is.
  WORDS = {"kind" => "sound", "format" => "csv", "what" => "pause", "which" => "face"}.freeze
  # Tables whose rows belong to a show by themselves or by what they stand under.
  OWNED = {feeds: :show_id, stages: :show_id, shelves: :show_id, phrases: :show_id, files: :show_id, left_out: :show_id, members: :show_id, invitations: :show_id,
           prompter_links: :show_id, cast_members: :show_id, fellows: :show_id, looks: :show_id, deeds: :show_id, permissions: :show_id, lines: :show_id,
           microphones: :show_id, descriptions: :show_id}.freeze
  BELOW = {revisions: %i[stage_id stages], emotes: %i[shelf_id shelves], badges: %i[feed_id feeds], people: %i[feed_id feeds]}.freeze

  def setup
    super
    as(:other) { sign_up(email: "other@reedmere.example", show: MARK) }
    @other = @record
    as(:owner) { @csrf = token_on("/feeds") }
    fill
    @shows.run(@other.id)
    # By itself it sees what it has: that is no change of anybody's.
    wait_for("the other show to know what is done") { db[:shows].where(id: @other.id).get(:lead).to_h.fetch("done", {}).size == 2 }
  end

  # Something of every kind, each with the mark in what can be read of it.
  def fill
    other = {show_id: @other.id}
    db[:pictures].insert(id: HASH, width: 1, height: 1, frames: 1, made_at_ms: 1)
    @feed = db[:feeds].insert(other.merge(kind: "irc", name: MARK, shape: "circle", colour: "#123456", address: Sequel.pg_jsonb({"host" => MARK, "port" => 1, "channel" => "#x"}),
      secret: MARK, wanted: false))
    @stage = db[:stages].insert(other.merge(name: MARK, token: MARK + ("x" * 32), draft: Sequel.pg_jsonb(Bavard::Core::Stage::Document.empty), place: 0))
    db[:revisions].insert(stage_id: @stage, number: 1, document: Sequel.pg_jsonb(Bavard::Core::Stage::Document.empty), made_at_ms: 1)
    @shelf = db[:shelves].insert(other.merge(name: MARK, position: 0))
    @emote = db[:emotes].insert(shelf_id: @shelf, code: ":#{MARK}:", picture_id: HASH)
    @phrase = db[:phrases].insert(other.merge(words: MARK, picture_id: HASH))
    db[:files].insert(other.merge(id: HASH, kind: "sound", name: MARK, bytes: 1, made_at_ms: 1))
    @member = db[:cast_members].insert(other.merge(service: "hidewire", key: MARK, name: MARK, seen_at_ms: 1))
    @look = db[:looks].insert(other.merge(name: MARK, document: Sequel.pg_jsonb({"mark" => MARK})))
    @taking = @site.takings.begin(@other.id, MARK) { {mark: MARK} }.id
    @fellow = db[:fellows].insert(other.merge(key: MARK, name: MARK))
    @invitation = db[:invitations].insert(other.merge(token: MARK + ("i" * 32), role: "reader", name: MARK, made_at_ms: 1))
    @link = db[:prompter_links].insert(other.merge(token: MARK + ("p" * 32), name: MARK, made_at_ms: 1))
    @microphone = db[:microphones].insert(other.merge(feed_id: @feed, key: MARK, name: MARK, token: MARK + ("m" * 32)))
    @description = db[:descriptions].insert(other.merge(text: MARK, samples: Sequel.pg_jsonb([]), changed_at_ms: 1))
    @line = 4_000_000_000_000_000
    db[:lines].insert(other.merge(id: @line, feed_id: @feed, login: MARK, display_name: MARK, kind: "said", text: MARK, arrived_at_ms: 1, shown_at_ms: 1, action: "pass"))
  end

  # What stands for a name in a route of that place.
  def values
    {"feed" => @feed, "stage" => @stage, "shelf" => @shelf, "emote" => @emote, "member" => @member, "fellow" => @fellow, "line" => @line, "account" => @other.account_id,
     "cue" => "cue_follow", "key" => "voices", "file" => HASH, "film" => HASH, "number" => 1, "piece" => "text1", "import" => "0" * 16, "token" => MARK + ("i" * 32), "link" => @microphone, "set" => "global",
     "look" => @look, "taking" => @taking, "show" => @other.id}.merge(WORDS)
  end

  def ids = {"/operator/invitations" => 1, "/dress/emotes" => @emote, "/dress/phrases" => @phrase, "/gate/replay" => "0" * 16, "/people/invitations" => @invitation, "/prompter/links" => @link,
             "/feeds/describe" => @description}

  # @return [Array<Array(String, String)>] verb and path
  def routes
    APPS.flat_map do |mount, app|
      app.routes.except("HEAD").flat_map { |verb, list| list.map { |pattern, *| [verb, filled("#{mount}#{pattern}")] } }
    end
  end

  def filled(path)
    path.gsub(/:([a-z_]+)/) do
      name = Regexp.last_match(1)
      value = name == "id" ? ids.find { |start, _| path.start_with?(start) }&.last : values[name]
      value or raise "#{path} has a “:#{name}” that this test does not know: say what of another show stands there"
    end
  end

  # All that belongs to the other show.
  def rows
    own = OWNED.to_h { |table, column| [table, db[table].where(column => @other.id).all] }
    below = BELOW.to_h { |table, (column, parent)| [table, db[table].where(column => db[parent].where(show_id: @other.id).select(:id)).all] }
    own.merge(below, shows: db[:shows].where(id: @other.id).all, accounts: db[:accounts].where(id: @other.account_id).all)
  end

  # Whatever a form or a script could send, with another show's things in it.
  def body
    @body ||= values.merge("id" => @stage, "ids" => [@stage, @shelf].join(","), "show" => @other.id, "show_id" => @other.id, "feeds" => @feed.to_s, "name" => "mine", "text" => "mine",
      "role" => "owner", "removed" => "1", "do" => "pull", "on" => "0", "login" => MARK, "stage_id" => @stage, "platform" => "skein", "to" => @stage.to_s)
  end

  def tried(verb, path)
    header "X-CSRF-Token", @csrf
    header "X-Requested-With", "XMLHttpRequest"
    verb == "GET" ? get(path, body) : public_send(verb.downcase, path, body)
    last_response
  end

  # Where a whole path is about the other show, there is nothing at it.
  def test_of_every_route_nothing_is_read_and_nothing_changed
    all = routes
    assert_operator all.size, :>, 150
    before = rows
    %i[owner director moderator reader].each { |role| role == :owner || join(invite(role.to_s, name: role.to_s), person: role) }
    found = %i[owner director moderator reader].flat_map { |role| walked(role, all) }
    assert_empty found
    until_written
    assert_equal before, rows
  end

  def walked(role, all)
    as(role) do
      @csrf = token_on(role == :owner ? "/feeds" : "/log/")
      all.filter_map do |verb, path|
        # Whoever has an invitation may see whose it is and take it up.
        next if path.start_with?("/people/join")

        answer = tried(verb, path)
        "#{role}: #{verb} #{path} → #{answer.status}" if leaks?(answer) || (about_another?(path) && !NOTHING_THERE.include?(answer.status))
      end
    end
  end

  def leaks?(answer) = answer.body.include?(MARK) || answer.headers.values.join.include?(MARK)

  # Its own id alone says whose it is; what is known by words or by what is in it may be there twice.
  def about_another?(path)
    [@feed, @stage, @shelf, @emote, @phrase, @member, @fellow, @line, @invitation, @link].any? { |id| path.split("/").include?(id.to_s) } &&
      !path.match?(%r{\\A/prompter/say/|/people/join})
  end

  # By its number alone, which anybody can count to.
  def test_a_prompter_of_another_show_is_not_cut_off
    cut = []
    hub = means.hub
    hub.define_singleton_method(:cut_where) { |&which| cut << which }
    as(:owner) do
      send_form("/prompter/links/#{@link}/back")
      assert_equal 404, last_response.status
    end
    assert_empty cut
  end

  def test_a_socket
    as(:owner) do
      ["/stage/#{@stage}/live", "/prompter/live", "/live"].each do |path|
        get path, {}, {"HTTP_UPGRADE" => "websocket", "HTTP_CONNECTION" => "Upgrade"}
        refute leaks?(last_response), path
      end
    end
  end
end
