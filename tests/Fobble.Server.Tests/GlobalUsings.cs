global using System.Net;
global using System.Net.Http.Json;
global using Shouldly;
global using Xunit;
