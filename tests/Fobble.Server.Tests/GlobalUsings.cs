global using System.Net;
global using System.Net.Http.Json;
global using Fobble.Core;
global using Fobble.Server.Rooms;
global using Shouldly;
global using Xunit;
